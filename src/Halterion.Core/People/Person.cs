using Halterion.Core.Plans;

namespace Halterion.Core.People;

/// <summary>Someone on the roster.</summary>
/// <param name="UsualTier">The option they usually take; logs are filled in with it beforehand.</param>
public sealed record Person(Guid Id, string Name, Tier UsualTier);
