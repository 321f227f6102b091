using System.Globalization;
using Halterion.Core.Plans;

namespace Halterion.Web.Startup;

/// <summary>What the command line says.</summary>
/// <param name="Lan">The local network may knock too, over HTTPS on the port after this one.</param>
/// <param name="Task">Something to be done with the data instead of serving it.</param>
/// <param name="Fault">One line for the user where it makes no sense.</param>
internal sealed record CommandLine(int Port, string DataFolder, bool Demo, bool Lan, DataTask? Task, string? Fault)
{
    public static CommandLine From(IConfiguration configuration)
    {
        var demo = string.Equals(configuration["demo"], "true", StringComparison.OrdinalIgnoreCase);
        var folder = configuration["data"] ?? DefaultFolder(demo);
        var port = int.TryParse(configuration["port"] ?? "5080", NumberStyles.None, CultureInfo.InvariantCulture, out var given)
            && given <= 65535
            ? given
            : -1;
        var fault = port < 0 || port == 65535 ? $"“{configuration["port"]}” is not a port. Use a number from 0 to 65534."
            : string.IsNullOrWhiteSpace(folder) ? "No data folder found. Name one with --data DIR."
            : null;
        var task = configuration["backup"] is { } to ? new DataTask(Restores: false, to)
            : configuration["restore"] is { } from ? new DataTask(Restores: true, from)
            : null;
        var lan = string.Equals(configuration["lan"], "true", StringComparison.OrdinalIgnoreCase);
        return new CommandLine(port, folder ?? "", demo, lan, task, fault);
    }

    /// <summary>The user's data folder; the demo has its own and never touches the real one.</summary>
    private static string? DefaultFolder(bool demo)
    {
        var root = Environment.GetFolderPath(Environment.SpecialFolder.LocalApplicationData, Environment.SpecialFolderOption.DoNotVerify);
        return root.Length == 0 ? null : Path.Combine(root, demo ? "halterion-demo" : "halterion");
    }
}
