using System.Diagnostics;
using System.Reflection;

namespace Halterion.Web.Startup;

/// <summary>
/// Halterion as one program, for machines without the SDK: its words on the command line, and what a double click expects. From the
/// sources the script beside them does the same.
/// </summary>
internal static class Packaged
{
    private const string Usage =
        """
        halterion            start with your own data and open the browser
        halterion demo       start with the demo studio
        halterion check FILE...    check class files (--json for JSON output)
        halterion draft BRIEF.json  draft classes for a brief, as files beside it
        halterion backup FILE      copy your data to a file (works while Halterion is running)
        halterion restore FILE     restore a copy (your current data is kept beside it)
        halterion version    say which version this is
        Options: --data DIR, --port N (default 5080), --no-browser, and --lan, which lets paired
        phones and screens on your local network connect over HTTPS on the next port
        """;

    /// <summary>Set where the program was packed.</summary>
    public static bool Is { get; } = AppContext.TryGetSwitch("Halterion.Packaged", out var on) && on;

    /// <summary>Which version it is.</summary>
    public static string Version =>
        typeof(Packaged).Assembly.GetCustomAttribute<AssemblyInformationalVersionAttribute>()?.InformationalVersion ?? "unknown";

    /// <summary>The command line in the words of the configuration.</summary>
    /// <param name="End">What the program ends with where nothing is to be started; null: it goes on.</param>
    internal sealed record Read(string[] Args, bool OpensBrowser, int? End);

    /// <summary>Reads the words of the packed program; what it cannot read is said with what can be.</summary>
    public static Read From(string[] args, TextWriter output, TextWriter errors)
    {
        var options = new List<string>();
        var (demo, opens) = ("false", true);
        var rest = new Queue<string>(args);
        if (rest.TryPeek(out var word) && !word.StartsWith('-'))
        {
            rest.Dequeue();
            switch (word)
            {
                case "start":
                    break;
                case "demo":
                    demo = "true";
                    break;
                case "check":
                    return new Read(args, false, null);
                case "draft":
                    return rest.Count == 1 ? new Read(args, false, null) : Wrong("draft needs the name of a brief");
                case "backup" or "restore":
                    if (!rest.TryDequeue(out var file) || file.StartsWith('-'))
                    {
                        return Wrong($"{word} needs the name of a file");
                    }

                    options.AddRange([$"--{word}", file]);
                    opens = false;
                    break;
                case "version":
                    return Said($"Halterion {Version}");
                case "help":
                    return Said(Usage);
                default:
                    return Wrong($"unknown command: {word}");
            }
        }

        while (rest.TryDequeue(out var option))
        {
            var (name, given) = option.IndexOf('=', StringComparison.Ordinal) is > 0 and var at
                ? (option[..at], option[(at + 1)..]) : (option, null);
            switch (name)
            {
                case "--lan":
                    options.AddRange(["--lan", "true"]);
                    break;
                case "--no-browser":
                    opens = false;
                    break;
                case "--version":
                    return Said($"Halterion {Version}");
                case "--help" or "-h":
                    return Said(Usage);
                case "--port" or "--data":
                    if ((given ?? (rest.TryDequeue(out var next) ? next : "")) is not { Length: > 0 } value)
                    {
                        return Wrong($"{name} needs a value");
                    }

                    options.AddRange([name, value]);
                    break;
                default:
                    return Wrong($"unknown option: {name}");
            }
        }

        return new Read(["--demo", demo, .. options], opens, null);

        Read Said(string words)
        {
            output.WriteLine(words);
            return new Read([], false, 0);
        }

        Read Wrong(string words)
        {
            errors.WriteLine($"halterion: {words}");
            errors.WriteLine(Usage);
            return new Read([], false, 2);
        }
    }

    /// <summary>Opens the browser of the machine; where there is none, the address on the screen is enough.</summary>
    public static void Open(string address)
    {
        try
        {
            using var opened = Process.Start(new ProcessStartInfo(address) { UseShellExecute = true });
        }
        catch (Exception e) when (e is System.ComponentModel.Win32Exception or InvalidOperationException or PlatformNotSupportedException)
        {
            Console.WriteLine("Open this address in a browser.");
        }
    }

    /// <summary>Whether a Halterion answers there already: a second double click opens the first one’s screen.</summary>
    public static async Task<bool> AnswersAsync(int port)
    {
        try
        {
            using var client = new HttpClient { Timeout = TimeSpan.FromSeconds(3) };
            using var answer = await client.GetAsync(new Uri($"http://localhost:{port}/api/health"));
            return answer.IsSuccessStatusCode;
        }
        catch (Exception e) when (e is HttpRequestException or TaskCanceledException)
        {
            return false;
        }
    }

    /// <summary>A window that a double click opened would close before the reason in it was read.</summary>
    public static int Ended(int code)
    {
        if (Is && code != 0 && OperatingSystem.IsWindows() && !Console.IsInputRedirected)
        {
            Console.Error.WriteLine("Press Enter to close this window.");
            _ = Console.ReadLine();
        }

        return code;
    }
}
