using System.Runtime.CompilerServices;
using System.Text.RegularExpressions;

namespace Halterion.Core.Tests;

/// <summary>Inside Core each folder depends only on folders above it in this list.</summary>
public partial class ArchitectureTests
{
    private static readonly string[] Order = ["Body", "Moves", "Plans", "Timing", "Room", "Logbook", "People", "Checks", "Leading", "Formats"];

    [Fact]
    public void Folders_depend_only_on_folders_above_them()
    {
        var core = Path.GetFullPath(Path.Combine(Here(), "..", "..", "src", "Halterion.Core"));
        var files = Directory.EnumerateFiles(core, "*.cs", SearchOption.AllDirectories)
            .Where(f => !f.Contains($"{Path.DirectorySeparatorChar}obj{Path.DirectorySeparatorChar}", StringComparison.Ordinal)).ToArray();
        Assert.True(files.Length > 20);
        Assert.All(files, file =>
        {
            var folder = Path.GetRelativePath(core, file).Split(Path.DirectorySeparatorChar) is [var name, _, ..] ? Array.IndexOf(Order, name) : -1;
            foreach (Match use in Using().Matches(File.ReadAllText(file)))
            {
                Assert.True(Array.IndexOf(Order, use.Groups[1].Value) < folder, $"{file} uses {use.Groups[1].Value}.");
            }
        });
    }

    private static string Here([CallerFilePath] string file = "") => Path.GetDirectoryName(file)!;

    [GeneratedRegex(@"using Halterion\.Core\.(\w+)")]
    private static partial Regex Using();
}
