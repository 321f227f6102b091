using System.Collections.Immutable;

namespace Halterion.Core.Planning;

/// <summary>One thing in which two versions of a document differ.</summary>
/// <param name="What">Such as "Note" or the name of a person in a log.</param>
/// <param name="Mine">As it was sent; "–": not there.</param>
/// <param name="Theirs">As it stands.</param>
public sealed record Difference(string What, string Mine, string Theirs)
{
    private const string Nothing = "–";

    /// <summary>Where two documents differ, each given as lines "what: value"; several lines of one kind count together.</summary>
    public static ImmutableArray<Difference> Between(IEnumerable<string> mine, IEnumerable<string> theirs)
    {
        var (here, there) = (ByKind(mine), ByKind(theirs));
        return
        [
            .. from what in here.Keys.Union(there.Keys)
               let difference = new Difference(what, here.GetValueOrDefault(what, Nothing), there.GetValueOrDefault(what, Nothing))
               where difference.Mine != difference.Theirs
               select difference,
        ];
    }

    private static Dictionary<string, string> ByKind(IEnumerable<string> lines) => lines
        .Select(line => line.Split(": ", 2))
        .GroupBy(parts => parts[0], parts => parts.Length > 1 && parts[1].Trim().Length > 0 ? parts[1] : Nothing)
        .ToDictionary(kind => kind.Key, kind => string.Join("; ", kind));
}
