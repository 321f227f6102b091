using Halterion.Core.Plans;

namespace Halterion.Core.People;

/// <summary>Someone on the roster.</summary>
/// <param name="UsualTier">The option they usually take; logs are filled in with it beforehand.</param>
/// <param name="StatureCm">Their height, where they chose to tell it: it sets the stations.</param>
public sealed record Person(Guid Id, string Name, Tier UsualTier, int? StatureCm = null);
