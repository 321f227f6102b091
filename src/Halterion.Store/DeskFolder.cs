namespace Halterion.Store;

/// <summary>The folder into which the booking desk puts its lists.</summary>
public static class DeskFolder
{
    /// <summary>In bytes; a larger file is no list of a class.</summary>
    public const int LargestFile = 1_000_000;

    public static string In(string data) => Path.Combine(data, "desk");
}
