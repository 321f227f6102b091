using System.Collections.Immutable;
using Halterion.Core.Plans;

namespace Halterion.Core.Logbook;

/// <summary>What one person did at one station: the option used; null: left out. Both by their ids in the class that was held.</summary>
public sealed record StationUse(PlaceId Station, PlaceId? Option = null);

/// <summary>One person's row of a log.</summary>
public sealed record LogRow(PersonId PersonId, bool Came, ImmutableArray<StationUse> Uses, string Note);

/// <summary>What happened in a class.</summary>
public sealed record ClassLog(ImmutableArray<LogRow> Rows, string Note);
