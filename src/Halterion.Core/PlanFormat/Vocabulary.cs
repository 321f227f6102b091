using System.Collections.Frozen;
using System.Text.Json;

namespace Halterion.Core.PlanFormat;

/// <summary>The words of an enumeration as they stand in a file.</summary>
public static class WordsOf<T> where T : struct, Enum
{
    public static readonly FrozenDictionary<string, T> All =
        Enum.GetValues<T>().ToFrozenDictionary(v => JsonNamingPolicy.CamelCase.ConvertName(v.ToString()));

    private static readonly FrozenDictionary<T, string> Back = All.ToFrozenDictionary(w => w.Value, w => w.Key);

    /// <summary>All of them, in the order of the enumeration.</summary>
    public static readonly string[] Names = Array.ConvertAll(Enum.GetNames<T>(), JsonNamingPolicy.CamelCase.ConvertName);

    public static readonly string Listed = string.Join(", ", Names);

    /// <summary>The word as it stands in a file.</summary>
    public static string Of(T value) => Back[value];
}

/// <summary>The words of an option (plan-language.md, "An option").</summary>
internal static class OptionWords
{
    public static readonly FrozenDictionary<string, string[]> ByField = new Dictionary<string, string[]>
    {
        ["depth"] = ["small", "quarter", "half", "parallel", "full", "knee", "midShin", "floor"],
        ["support"] = ["none", "hand", "twoHands", "handOnThigh", "wall", "chair", "doorway", "knees", "forearms", "helper"],
        ["base"] = ["wide", "hip", "narrow", "staggered", "split", "frontRaised", "rearRaised", "single"],
        ["toes"] = ["ahead", "out"],
        ["step"] = ["short", "normal", "long"],
        ["trunk"] = ["upright", "leaning"],
        ["arms"] = ["free", "forward", "sides", "hips", "crossed", "overhead"],
        ["surface"] = ["floor", "mat", "pad", "step", "box", "chair", "bench", "wall", "soft"],
        ["impact"] = ["none", "hop", "jump"],
        ["band"] = ["none", "light", "medium", "strong"],
        ["grip"] = ["over", "mixed", "neutral"],
    }.ToFrozenDictionary();

    public static readonly string[] Implements = ["dumbbell", "kettlebell", "barbell", "plate", "ball", "bottle", "machine"];

    public static readonly string[] Positions = ["goblet", "sides", "shoulders", "rack", "frontRack", "back", "overhead", "hips", "low"];

    public static readonly string[] LoadSides = ["same", "opposite", "both"];
}
