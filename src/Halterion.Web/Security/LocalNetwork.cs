using System.Net;
using System.Net.NetworkInformation;
using System.Net.Sockets;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;

namespace Halterion.Web.Security;

/// <summary>The door to the local network: its addresses, and a certificate of this machine's own, made on first use.</summary>
/// <param name="Port">Of HTTPS; null: the door is shut.</param>
/// <param name="Names">Addresses and names by which this machine is reached.</param>
public sealed record LocalNetwork(int? Port, IReadOnlyList<string> Names)
{
    private const string File = "local-network.pfx";

    /// <summary>A certificate that ends within this time is made anew.</summary>
    private static readonly TimeSpan Rest = TimeSpan.FromDays(30);

    public static readonly LocalNetwork Shut = new(null, []);

    /// <param name="port">0: any that is free.</param>
    public static LocalNetwork Open(int port) =>
        new(port == 0 ? Free() : port, [.. Addresses().Select(a => a.ToString()), Dns.GetHostName(), $"{Dns.GetHostName()}.local"]);

    /// <summary>Where another device of the network finds this one.</summary>
    public string? Address => Port is { } port && Names.Count > 0 ? $"https://{Names[0]}:{port}" : null;

    public static string CertificateFile(string folder) => Path.Combine(folder, File);

    /// <summary>
    /// The certificate in the data folder; made anew where there is none, it ends soon, or the machine has another address.
    /// </summary>
    public X509Certificate2 Certificate(string folder, TimeProvider clock)
    {
        var path = CertificateFile(folder);
        if (System.IO.File.Exists(path))
        {
            try
            {
                var kept = X509CertificateLoader.LoadPkcs12FromFile(path, null);
                var covers = kept.Extensions.OfType<X509SubjectAlternativeNameExtension>().FirstOrDefault();
                var known = covers is null ? [] : covers.EnumerateIPAddresses().Select(a => a.ToString()).Concat(covers.EnumerateDnsNames())
                    .ToHashSet(StringComparer.OrdinalIgnoreCase);
                if (kept.NotAfter - clock.GetUtcNow() > Rest && Names.All(known.Contains))
                {
                    return kept;
                }

                kept.Dispose();
            }
            catch (CryptographicException)
            {
                // A damaged file is made anew like a missing one.
            }
        }

        var made = Make(clock);
        var options = new FileStreamOptions { Mode = FileMode.Create, Access = FileAccess.Write };
        if (!OperatingSystem.IsWindows())
        {
            options.UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite;
        }

        using (var file = new FileStream(path, options))
        {
            file.Write(made.Export(X509ContentType.Pkcs12));
        }

        return made;
    }

    private X509Certificate2 Make(TimeProvider clock)
    {
        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        var request = new CertificateRequest("CN=Halterion on this machine", key, HashAlgorithmName.SHA256);
        var names = new SubjectAlternativeNameBuilder();
        names.AddDnsName("localhost");
        foreach (var name in Names)
        {
            if (IPAddress.TryParse(name, out var address))
            {
                names.AddIpAddress(address);
            }
            else
            {
                names.AddDnsName(name);
            }
        }

        request.CertificateExtensions.Add(names.Build());
        request.CertificateExtensions.Add(new X509BasicConstraintsExtension(false, false, 0, true));
        request.CertificateExtensions.Add(new X509EnhancedKeyUsageExtension([new Oid("1.3.6.1.5.5.7.3.1")], false));
        var now = clock.GetUtcNow();
        using var made = request.CreateSelfSigned(now.AddDays(-1), now.AddDays(800));
        return X509CertificateLoader.LoadPkcs12(made.Export(X509ContentType.Pkcs12), null);
    }

    private static int Free()
    {
        using var listener = new TcpListener(IPAddress.Any, 0);
        listener.Start();
        return ((IPEndPoint)listener.LocalEndpoint).Port;
    }

    private static IEnumerable<IPAddress> Addresses() =>
        from card in NetworkInterface.GetAllNetworkInterfaces()
        where card.OperationalStatus == OperationalStatus.Up && card.NetworkInterfaceType != NetworkInterfaceType.Loopback
        from address in card.GetIPProperties().UnicastAddresses
        where address.Address.AddressFamily == AddressFamily.InterNetwork && !IPAddress.IsLoopback(address.Address)
        select address.Address;
}
