namespace Halterion.Core.Checks;

/// <summary>Words that findings are made of.</summary>
public static class Told
{
    /// <summary>"a, b and c".</summary>
    public static string And(IEnumerable<string> names)
    {
        var all = names.ToArray();
        return all.Length < 2 ? string.Concat(all) : $"{string.Join(", ", all[..^1])} and {all[^1]}";
    }

    /// <summary>A share in words.</summary>
    public static string Percent(double share) => $"{Math.Round(100 * share)}%";

    /// <summary>A number of people in words.</summary>
    public static string People(int many) => many == 1 ? "1 person" : $"{many} people";
}
