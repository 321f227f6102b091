using System.Collections.Immutable;
using System.Text.Json.Nodes;
using System.Text.Json.Serialization;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Words;

namespace Halterion.Core.Logbook;

/// <summary>What somebody had better do with a move next.</summary>
public enum NextStep
{
    /// <summary>It is their first time.</summary>
    Start,
    /// <summary>Something else instead, until it is seen to.</summary>
    Leave,
    /// <summary>What asks less.</summary>
    Easier,
    /// <summary>With less, after a time away.</summary>
    Restart,
    /// <summary>With less.</summary>
    Down,
    /// <summary>More of it.</summary>
    Up,
    /// <summary>As it is.</summary>
    Stay,
}

/// <summary>What is known of somebody and a move before they do it again.</summary>
/// <param name="History">Of this move, its easier and its harder alike; oldest first.</param>
/// <param name="Option">What they are to do.</param>
/// <param name="Level">Their usual option for its family.</param>
/// <param name="Stock">Null: not known.</param>
/// <param name="Ready">What somebody has seen to be sound; null: all of it.</param>
public sealed record MovingOnCase(
    ImmutableArray<PastWork> History,
    Option Option,
    Target Target,
    DateOnly Today,
    Tier? Level = null,
    ImmutableArray<StockLine>? Stock = null,
    ImmutableArray<Tick>? Ready = null,
    ImmutableArray<PersonLimit> Limits = default);

/// <summary>What is suggested, and why.</summary>
/// <param name="Rule">Which rule decided, such as <c>two-for-two</c>.</param>
/// <param name="Option">As in a class; null: leave it out.</param>
/// <param name="Kg">Each one's; it goes over that of the option.</param>
/// <param name="First">The side that begins.</param>
/// <param name="Practise">What is to be sound first.</param>
/// <param name="Reason">In words that a participant may hear.</param>
/// <param name="Source">Where the rule is from, as a sentence.</param>
public sealed record Suggestion(
    NextStep Action,
    string Rule,
    JsonObject? Option,
    Target Target,
    decimal? Kg,
    BodySide? First,
    Tick? Practise,
    string Reason,
    string Source)
{
    /// <summary>The option itself.</summary>
    [JsonIgnore]
    public Option? Of { get; init; }
}

/// <summary>Says who moves on, and how (docs/logbook.md): the first rule that holds decides.</summary>
public sealed class MovingOn
{
    /// <summary>Longer away, and one begins with less. [M]</summary>
    private const int AwayDays = 28;

    /// <summary>Under so much of what was asked is too much asked, in hundredths. [M]</summary>
    private const int ShortPercent = 70;

    /// <summary>Under so much of the other side is the weaker one, in hundredths. [M]</summary>
    private const int SidePercent = 80;

    /// <summary>Fewer than this is another option. [M]</summary>
    private const int FewestReps = 5;

    /// <summary>From here on it was all they had, Borg CR10. [M]</summary>
    private const decimal AllOut = 9;

    /// <summary>Without a load so many are enough before the next option. [M]</summary>
    private const int EnoughReps = 12;

    private const int EnoughSeconds = 40;

    /// <summary>Reps or seconds over the target, and by how much it grows. NSCA, the 2-for-2 rule (from memory); seconds: [M].</summary>
    private const int MoreReps = 2;

    private const int MoreSeconds = 5;

    private readonly MovingOnCase of;
    private readonly MoveLibrary moves;
    private readonly WeightSteps steps;
    private readonly WeightsAtHand? weights;

    private MovingOn(MovingOnCase of, MoveLibrary moves)
    {
        (this.of, this.moves) = (of, moves);
        steps = WeightSteps.Of(of.Stock, of.Option.Manner.Load);
        weights = StockWeights.Of(of.Stock);
    }

    /// <summary>What is suggested.</summary>
    public static Suggestion Of(MovingOnCase of, MoveLibrary moves) => new MovingOn(of, moves).Decide();

    private ImmutableArray<PastWork> History => of.History;

    private PastWork Last => History[^1];

    private PastWork? Before => History.Length > 1 ? History[^2] : null;

    private int More => of.Target.IsTime ? MoreSeconds : MoreReps;

    /// <summary>Each one's kilograms, as last held; without a history as the option says.</summary>
    private decimal? Kg => of.Option.Manner.Load is null or { IsNone: true } ? null
        : (History.IsEmpty ? null : Last.Kg) ?? of.Option.Manner.Load.Kg?.Value;

    private Suggestion Decide() =>
        History.IsEmpty ? Start()
        : Last.Pain is not null && Before?.Pain is not null ? Leave()
        : Last.Pain is not null ? AfterPain()
        : of.Today.DayNumber - Last.Date.DayNumber > AwayDays ? Less(NextStep.Restart, "away", MovingOnWords.Away(of.Today, Last.Date))
        : 100 * Last.Done < ShortPercent * Last.Target.Amount ? Less(NextStep.Down, "short", MovingOnWords.Short(Last))
        : TwoForTwo() ? Up()
        : WeakerSide() is { } weaker ? Said(
            NextStep.Stay, "sides", MovingOnWords.Sides(Last, weaker), target: of.Target.With(Math.Max(1, DoneOn(Last, weaker))))
            with
        { First = weaker }
        : Said(NextStep.Stay, "hold", MovingOnWords.Hold);

    private Suggestion Start()
    {
        var level = of.Level ?? of.Option.Tier;
        var loaded = of.Option.Manner.Load is { IsNone: false };
        var option = ByLevel(level, loaded);
        if (!loaded)
        {
            return Said(NextStep.Start, "first", MovingOnWords.First(null), option);
        }

        var known = steps.Known is { IsEmpty: false } stock ? stock : (ImmutableArray<decimal>?)null;
        var wanted = known is { } all ? At(all, level) : of.Option.Manner.Load!.Kg?.Value;
        decimal? taken = known is { } lighter
            ? lighter.Where(kg => kg <= wanted && IsReady(With(option, kg))).Select(kg => (decimal?)kg).LastOrDefault()
            : wanted is { } one && IsReady(With(option, one)) ? one : null;
        return taken is null && wanted is not null
            ? Said(NextStep.Start, "first", MovingOnWords.FirstWithout, Without(option), kg: null, loaded: false)
            : Said(NextStep.Start, "first", MovingOnWords.First(taken), option, kg: taken);
    }

    /// <summary>Easier the lightest, main a third up, harder half up.</summary>
    private static decimal At(ImmutableArray<decimal> stock, Tier level) => level switch
    {
        Tier.Easier => stock[0],
        Tier.Main or Tier.Instead => stock[((stock.Length + 2) / 3) - 1],
        Tier.Harder => stock[((stock.Length + 1) / 2) - 1],
    };

    /// <summary>The option of their level; where a weight makes it easier or harder, the option stays and the weight tells.</summary>
    private Option ByLevel(Tier level, bool loaded)
    {
        if (level == of.Option.Tier || of.Option.Tier != Tier.Main || level is Tier.Main or Tier.Instead)
        {
            return of.Option;
        }

        return Next(level, o => IsAllowed(o) && IsReady(o)
            && (!loaded || o.Manner.Load?.Implement == of.Option.Manner.Load!.Implement && o.Manner.Load?.Kg == of.Option.Manner.Load.Kg))
            ?? of.Option;
    }

    private Suggestion Leave() => Next(Tier.Instead, IsAllowed) is { } instead
        ? Said(NextStep.Leave, "pain-twice", MovingOnWords.Leave(NameOf(instead)), instead, kg: KgOf(instead), loaded: false)
        : Said(NextStep.Leave, "pain-twice", MovingOnWords.LeaveOut, kg: null, loaded: false) with { Option = null, Of = null };

    private Suggestion AfterPain() => Next(Tier.Easier, IsAllowed) is { } easier
        ? Said(NextStep.Easier, "pain", MovingOnWords.AfterPain(NameOf(easier)), easier, kg: KgOf(easier), loaded: false)
        : Said(NextStep.Stay, "pain", MovingOnWords.NothingEasier);

    /// <summary>
    /// With less weight, or less of it; where that would be next to nothing, and too much was asked, with another option.
    /// </summary>
    private Suggestion Less(NextStep action, string rule, string because)
    {
        if (Kg is { } kg && steps.Below(kg) is { } lighter)
        {
            return Said(action, rule, MovingOnWords.TakeKg(because, lighter, CountOf(of.Option)), kg: lighter);
        }

        var less = of.Target.With(EightTenths);
        return action == NextStep.Down && less.Amount < FewestReps && Next(Tier.Easier, IsAllowed) is { } easier
            ? Said(action, rule, MovingOnWords.TakeOption(because, NameOf(easier), of.Target), easier, kg: KgOf(easier), loaded: false)
            : Said(action, rule, MovingOnWords.TakeTarget(because, less), target: less);
    }

    private int EightTenths => (int)Math.Ceiling(of.Target.Amount * 0.8m);

    private bool TwoForTwo() => Before is { } before
        && IsSame(Last.Option, before.Option) && Last.Kg == before.Kg && IsSame(WithoutKg(Last.Option), WithoutKg(of.Option))
        && new[] { before, Last }.All(w => w.Done >= w.Target.Amount + More && (w.Effort is null || w.Effort < AllOut) && w.Clean != false);

    private Suggestion Up()
    {
        var because = MovingOnWords.TwoForTwo(Before!, Last);
        return Kg is { } kg ? UpLoaded(kg, because)
            : of.Target.Amount < (of.Target.IsTime ? EnoughSeconds : EnoughReps) ? MoreOfIt(because)
            : UpOption(because);
    }

    private Suggestion UpLoaded(decimal kg, string because)
    {
        if (steps.Fine(kg) is { } fine && IsAllowed(With(of.Option, fine)))
        {
            return Heavier(fine, because, of.Target);
        }

        // Where the next weight is a leap, the reps grow first, so that they can fall again with it.
        var oldest = History.First(w => IsSame(w.Option, Last.Option) && w.Kg == Last.Kg).Target.Amount;
        if (10 * of.Target.Amount < 13 * oldest)
        {
            return MoreOfIt(because);
        }

        return steps.Above(kg) is { } above && IsAllowed(With(of.Option, above))
            ? Heavier(above, because, of.Target.With(EightTenths))
            : UpOption(because);
    }

    private Suggestion Heavier(decimal kg, string because, Target target) => MissingFor(With(of.Option, kg)) is { } tick
        ? Practise(because, tick)
        : Said(NextStep.Up, "two-for-two", MovingOnWords.TakeKg(because, kg, CountOf(of.Option), target == of.Target ? null : target),
            target: target, kg: kg);

    private Suggestion MoreOfIt(string because)
    {
        var more = of.Target.With(of.Target.Amount + More);
        return Said(NextStep.Up, "two-for-two", MovingOnWords.TakeTarget(because, more), target: more);
    }

    private Suggestion UpOption(string because)
    {
        var allowed = All(Tier.Harder).Where(IsAllowed).ToArray();
        if (allowed.FirstOrDefault(IsReady) is { } harder)
        {
            var less = of.Target.With(EightTenths);
            return Said(NextStep.Up, "two-for-two", MovingOnWords.TakeOption(because, NameOf(harder), less), harder, less,
                KgOf(harder), false);
        }

        return allowed.Select(MissingFor).FirstOrDefault(t => t is not null) is { } tick
            ? Practise(because, tick)
            : Said(NextStep.Stay, "two-for-two", MovingOnWords.NothingHarder(because));
    }

    private Suggestion Practise(string because, Tick tick) =>
        Said(NextStep.Stay, "two-for-two", MovingOnWords.Practise(because, Allowance.Named(tick))) with { Practise = tick };

    /// <summary>The side that stayed far behind the other twice running; null: none did.</summary>
    private BodySide? WeakerSide()
    {
        static BodySide? Weaker(PastWork? work) => work?.Sides is not { } sides ? null
            : 100 * sides.Left < SidePercent * sides.Right ? BodySide.Left
            : 100 * sides.Right < SidePercent * sides.Left ? BodySide.Right
            : null;
        return Weaker(Last) is { } side && Weaker(Before) == side ? side : null;
    }

    private static int DoneOn(PastWork work, BodySide side) => side == BodySide.Left ? work.Sides!.Value.Left : work.Sides!.Value.Right;

    /// <summary>The options in a direction, the nearest first, each of the tier that it has beside the one they do.</summary>
    private IEnumerable<Option> All(Tier direction)
    {
        var now = Kg is { } kg ? With(of.Option, kg) : of.Option;
        var tier = (direction, of.Option.Tier) switch
        {
            (Tier.Harder, Tier.Easier) or (Tier.Easier, Tier.Harder) => Tier.Main,
            _ => direction,
        };
        return Proposals.All(new Doing(now.Move, now.Manner), direction, moves, weights: weights).Select(p => p.Of with { Tier = tier });
    }

    private Option? Next(Tier direction, Func<Option, bool> may) => All(direction).FirstOrDefault(may);

    private bool IsAllowed(Option option) => moves.Find(option.Move) is { } move
        && (of.Limits.IsDefault ? [] : of.Limits).Where(l => l.CountsOn(of.Today))
            .All(l => LimitTable.WhyNot(move, option.Manner, moves, l.Limit, l.Strict) is null);

    private bool IsReady(Option option) => MissingFor(option) is null;

    private Tick? MissingFor(Option option) => of.Ready is not { } ready ? null
        : Allowance.Wants(option, Alone(option), moves).Where(t => !ready.Contains(t)).Select(t => (Tick?)t).FirstOrDefault();

    /// <summary>A station with these options and nothing else.</summary>
    private static Station Alone(params ImmutableArray<Option> options) =>
        new() { Id = new PlaceId("s"), Name = "", Dose = [], Options = options };

    /// <summary>An option in words: by what is otherwise than in the one they do.</summary>
    private string NameOf(Option option) => option.Tier == Tier.Main
        ? PlanWords.Option(option, moves, new Preferences())
        : PlanWords.Option(option, Alone(of.Option with { Tier = Tier.Main }, option), moves, new Preferences());

    private static decimal? KgOf(Option option) => option.Manner.Load?.Kg?.Value;

    private static int CountOf(Option option) => option.Manner.Load?.Count ?? 1;

    private static Option With(Option option, decimal kg) => option.Manner.Load is { IsNone: false } load
        ? option with { Manner = option.Manner with { Load = load with { Kg = new Kilograms(kg) } } }
        : option;

    private static Option WithoutKg(Option option) => option.Manner.Load is { IsNone: false } load
        ? option with { Manner = option.Manner with { Load = load with { Kg = null } } }
        : option;

    private Option Without(Option option) => option with
    {
        Manner = option.Manner with { Load = moves.Find(option.Move)?.Usual is null ? null : Load.None },
    };

    /// <summary>Equal in all fields but id and note.</summary>
    private static bool IsSame(Option a, Option b) =>
        a.Tier == b.Tier && a.Move == b.Move && a.Manner.Equals(b.Manner) && a.Sides == b.Sides && a.Chunk == b.Chunk
        && a.Parts.Count == b.Parts.Count && a.Parts.All(p => b.Parts.TryGetValue(p.Key, out var other) && other.Equals(p.Value));

    private Suggestion Said(
        NextStep action, string rule, string reason, Option? option = null, Target? target = null, decimal? kg = null, bool loaded = true)
    {
        var said = option ?? of.Option;
        return new Suggestion(
            action, rule, PlanWriter.Of(said), target ?? of.Target, kg ?? (loaded ? Kg
                : null), null, null, reason, MovingOnWords.SourceOf(rule))
        {
            Of = said,
        };
    }
}
