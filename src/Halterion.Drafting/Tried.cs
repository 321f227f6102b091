using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Halterion.Core;
using Halterion.Core.Checks;
using Halterion.Core.Moves;
using Halterion.Core.Planning.Drafts;
using Halterion.Core.Plans;
using Halterion.Core.Room;

namespace Halterion.Drafting;

/// <summary>A class that was put together from main moves, with what it breaks and what it costs.</summary>
internal sealed record Tried(
    ImmutableArray<MoveId> Mains,
    JsonObject Plan,
    ClassReview Review,
    ImmutableArray<DraftBreach> Breaches,
    ImmutableSortedDictionary<string, decimal> Terms,
    Assignment? Given)
{
    private const decimal Broken = 10_000;

    public decimal Cost => Terms.Values.Sum();

    public decimal Price => Cost + (Broken * Breaches.Length);

    /// <summary>A breach in the main work: other moves may mend it.</summary>
    public bool IsOfTheMoves(DraftBreach breach) => Review.Plan.Blocks.Where(ClassReview.IsMain)
        .Any(b => b.Id == breach.Place || b.Stations.Any(s => s.Id == breach.Place || s.Options.Any(o => o.Id == breach.Place)));

    /// <summary>The move that a breach is about; null where it is about more than one, or about one that stays.</summary>
    public MoveId? MoveOf(DraftBreach breach)
    {
        var at = Review.MainStations.FirstOrDefault(s => s.Id == breach.Place || s.Station.Options.Any(o => o.Id == breach.Place));
        return at is not null && Mains.Contains(at.Station.Main.Move) ? at.Station.Main.Move : null;
    }
}

/// <summary>Puts classes together and judges them by the functions of the checks and of who does what.</summary>
internal sealed class Judge(DraftBrief brief, MoveLibrary moves, Preferences preferences, DraftStations stations)
{
    private readonly DraftBuilder builder = new(brief, moves, preferences, stations);
    private readonly DraftReview review = new(brief, moves, preferences);

    /// <summary>What the last class that was turned down broke; empty.</summary>
    public string Why { get; private set; } = "";

    /// <summary>Null where no timing of these fills the slot.</summary>
    public Tried? Of(DraftShape shape, ImmutableArray<MoveId> mains)
    {
        if (builder.Build(shape, mains) is not { } plan)
        {
            Why = "No number of rounds fills the booked time.";
            return null;
        }

        if (review.Of(plan) is not { } seen)
        {
            Why = "What is kept does not go together with the rest.";
            return null;
        }

        ImmutableArray<DraftBreach> breaches =
        [
            .. DraftRules.Broken(brief, seen.Review, seen.Totals, seen.Breakdown, seen.Findings, seen.Given),
            .. brief.Keep is { } keep && !DraftRules.Keeps(seen.Plan, keep)
                ? [new DraftBreach("pins", PlaceId.Class, "What is to stay did not.")] : Array.Empty<DraftBreach>(),
        ];
        Why = breaches.IsEmpty ? Why : breaches[0].Words;
        return new Tried(mains, seen.Plan, seen.Review, breaches, DraftCost.Of(brief, seen.Review, seen.Findings, seen.Given), seen.Given);
    }
}
