using System.Collections.Immutable;

namespace Halterion.Core.Logbook;

/// <summary>What one person did at one station: the option used, by its place in the station's list; null: left out.</summary>
public sealed record StationUse(int Block, int Station, int? Option = null);

/// <summary>One person's row of a log.</summary>
public sealed record LogRow(Guid PersonId, bool Came, ImmutableArray<StationUse> Uses, string Note);

/// <summary>What happened in a class.</summary>
public sealed record ClassLog(ImmutableArray<LogRow> Rows, string Note);
