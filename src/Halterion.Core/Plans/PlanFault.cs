namespace Halterion.Core.Plans;

/// <summary>One thing that is wrong with a class file.</summary>
/// <param name="Pointer">Where, as a JSON Pointer (RFC 6901); a missing field is named by the place it should have.</param>
/// <param name="Detail">What is wrong.</param>
/// <param name="Right">What would be right.</param>
public sealed record PlanFault(string Pointer, string Detail, string Right);
