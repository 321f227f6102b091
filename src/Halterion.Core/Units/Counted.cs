using System.Globalization;

namespace Halterion.Core;

/// <summary>Numbers with their nouns.</summary>
public static class Counted
{
    /// <summary>"1 change", "3 changes".</summary>
    public static string Of(int count, string one, string more) =>
        string.Create(CultureInfo.InvariantCulture, $"{count} {(count == 1 ? one : more)}");
}
