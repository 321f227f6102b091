using System.Text;

namespace Halterion.Store.Tests;

/// <summary>A data folder of its own, gone after the test.</summary>
internal sealed class Folder : IDisposable
{
    public Folder() => Path = Directory.CreateTempSubdirectory("halterion-test-").FullName;

    public string Path { get; }

    public string Data => System.IO.Path.Combine(Path, "halterion.db");

    public Database Open() => Database.Open(Path, TimeProvider.System);

    /// <summary>The files in which a text stands, whatever they are.</summary>
    public string[] Holding(string text)
    {
        var sought = Encoding.UTF8.GetBytes(text);
        return [
            .. Directory.EnumerateFiles(Path, "*", SearchOption.AllDirectories).Where(
                f => System.IO.Path.GetFileName(f) != "lock" && File.ReadAllBytes(f).AsSpan().IndexOf(sought) >= 0)];
    }

    public void Dispose() => Directory.Delete(Path, recursive: true);
}
