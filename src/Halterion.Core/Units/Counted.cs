using System.Globalization;

namespace Halterion.Core;

/// <summary>Numbers with their nouns.</summary>
public static class Counted
{
    /// <summary>"1 change", "3 changes".</summary>
    public static string Of(int count, string one, string more) =>
        string.Create(CultureInfo.InvariantCulture, $"{count} {(count == 1 ? one : more)}");

    /// <summary>As it is spoken: "two", "twelve", "13".</summary>
    public static string Spelled(int count) =>
        count >= 0 && count < Numbers.Length ? Numbers[count] : count.ToString(CultureInfo.InvariantCulture);

    private static readonly string[] Numbers = [
        "no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"];
}
