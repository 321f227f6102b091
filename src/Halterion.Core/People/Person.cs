using System.Collections.Immutable;
using System.Text.Json.Serialization;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.People;

/// <summary>A side of the body.</summary>
public enum BodySide
{
    /// <summary>The body's own left.</summary>
    Left,
    /// <summary>The body's own right.</summary>
    Right,
}

/// <summary>Care that somebody needs.</summary>
/// <param name="Strict">The wider of the two ranges is kept to.</param>
/// <param name="Until">The last day on which it counts; null: for good. Past it, it asks to be renewed or ended.</param>
public sealed record PersonLimit(Limit Limit, BodySide? Side = null, bool Strict = false, string? Note = null, DateOnly? Until = null)
{
    /// <summary>It holds on a day.</summary>
    public bool CountsOn(DateOnly day) => Until is null || day <= Until;
}

/// <summary>What somebody usually holds for a move: the kilograms of all that is held.</summary>
public sealed record RememberedLoad(Implement Implement, decimal Kg);

/// <summary>Heights that suit somebody, in centimetres, and their band.</summary>
public sealed record PersonSetUp(int? BoxCm = null, int? BenchCm = null, int? RearFootCm = null, BandStrength? Band = null);

/// <summary>Someone on the roster.</summary>
/// <param name="Nick">What they are called in class.</param>
/// <param name="StatureCm">100–230, where they chose to tell it: it sets the stations.</param>
/// <param name="MassKg">25–300.</param>
/// <param name="Level">Their usual option by family: of <c>squat</c>, <c>lunge</c>, <c>hinge</c> and <c>bridge</c>; a missing one is the
/// main option.</param>
/// <param name="Loads">By move.</param>
/// <param name="Revision">Counts the changes of what is kept of them; 0: not kept yet.</param>
public sealed record Person(
    PersonId Id,
    string Name,
    string? Nick = null,
    int? StatureCm = null,
    decimal? MassKg = null,
    int? BirthYear = null,
    ImmutableSortedDictionary<string, Tier>? Level = null,
    ImmutableArray<PersonLimit>? Limits = null,
    ImmutableArray<Tick>? Ready = null,
    ImmutableSortedDictionary<string, RememberedLoad>? Loads = null,
    PersonSetUp? SetUp = null,
    string? Note = null,
    int Revision = 0)
{
    /// <summary>The families that have a level of their own.</summary>
    public static readonly ImmutableArray<Family> Levelled = [Family.Squat, Family.Lunge, Family.Hinge, Family.Bridge];

    /// <summary>What they are called.</summary>
    [JsonIgnore]
    public string Called => Nick ?? Name;

    /// <summary>Their usual option for a family; moves of other families use the lowest of the four.</summary>
    public Tier LevelFor(Family family) => Levelled.Contains(family) ? LevelOf(family) : Levelled.Min(LevelOf);

    /// <summary>The limits that count on a day.</summary>
    public IEnumerable<PersonLimit> LimitsOn(DateOnly day) => (Limits ?? []).Where(l => l.CountsOn(day));

    /// <summary>Somebody has seen it to be sound.</summary>
    public bool Has(Tick tick) => (Ready ?? []).Contains(tick);

    private Tier LevelOf(Family family) => Level?.GetValueOrDefault(PlanFormat.WordsOf<Family>.Of(family), Tier.Main) ?? Tier.Main;
}
