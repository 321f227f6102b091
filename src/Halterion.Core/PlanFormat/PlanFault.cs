namespace Halterion.Core.PlanFormat;

/// <summary>One thing that is wrong with a class file.</summary>
/// <param name="Pointer">Where, as a JSON Pointer (RFC 6901); for a missing field, the object that should have it.</param>
/// <param name="Detail">What is wrong.</param>
/// <param name="Right">What would be right.</param>
public sealed record PlanFault(string Pointer, string Detail, string Right)
{
    /// <summary>Where, for people: "Block 3, station 1, target".</summary>
    public string Place => PlaceInWords.Of(Pointer);

    /// <summary>Where, what is wrong and what would be right, in one sentence after the other.</summary>
    public string Sentence => $"{Place}: {Detail} Should be: {Right}.";
}
