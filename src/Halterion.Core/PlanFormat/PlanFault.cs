namespace Halterion.Core.PlanFormat;

/// <summary>One thing that is wrong with a class file.</summary>
/// <param name="Pointer">Where, as a JSON Pointer (RFC 6901); for a missing field, the object that should have it.</param>
/// <param name="Detail">What is wrong.</param>
/// <param name="Right">What would be right.</param>
public sealed record PlanFault(string Pointer, string Detail, string Right);
