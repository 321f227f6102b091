using System.Runtime.CompilerServices;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Checks;

/// <summary>What the rules of options share: they look at the stations of main work and activation.</summary>
public abstract class OptionRule(
    string code, string says, string why, string source, string others = "") : Rule(code, says, why, source, others)
{
    private const int MostOptions = 9;

    /// <summary>The stations that options are asked of.</summary>
    protected static IEnumerable<StationAt> Judged(ClassReview review) => review.Stations.Where(s => s.IsMainOrActivation);

    /// <summary>Whether any option of a station is free of something in all its parts.</summary>
    protected static bool AnyWithout(ClassReview review, StationAt at, Func<DonePart, bool> has) =>
        at.Station.Options.Any(o => review.Works(o, at).All(p => !has(p)));

    /// <summary>Adds an option; none where the station has as many as it may have.</summary>
    protected static IEnumerable<Repair> Add(StationAt at, string title, Option option) => Add(at, title, [option]);

    /// <summary>A repair that adds options to a station.</summary>
    protected static IEnumerable<Repair> Add(StationAt at, string title, IReadOnlyCollection<Option> options)
    {
        if (options.Count > 0 && at.Station.Options.Length + options.Count <= MostOptions)
        {
            yield return new Repair(title, [.. options.Select(o => new Edit($"{at.Pointer}/options/-", PlanWriter.Of(o)))]);
        }
    }

    /// <summary>Whether a move can be done in this dose: counted reps want a tempo.</summary>
    protected static bool CanBeDosed(StationAt at, Move move) =>
        move.Tempo is not null || at.Station.Dose.All(p => p.Kind != PartKind.Reps || p.OwnTempo is not null);

    /// <summary>
    /// The nearest option that is free of something: the move itself done otherwise, what the library proposes, another of its family.
    /// </summary>
    /// <param name="free">Of what, as a name to remember the answer by.</param>
    protected static Option? Nearest(ClassReview review, StationAt at, string free, Func<DonePart, bool> good)
    {
        var counted = at.Station.Dose.Any(p => p.Kind == PartKind.Reps && p.OwnTempo is null);
        return at.Station.Main.Parts.IsEmpty && at.Station.Dose.All(p => p.OwnMove is null)
            ? review.Moves.Once(
                new Key(review.Moves.Find(at.Station.Main.Move)!, at.Station.Main.Manner, counted, free), () => Find(review, at, good))
            : Find(review, at, good);
    }

    /// <summary>A move by identity: an own one may change under its name.</summary>
    private sealed record Key(Move Move, Manner Manner, bool Counted, string Free)
    {
        public bool Equals(Key? other) => other is not null && ReferenceEquals(Move, other.Move) && Manner.Equals(other.Manner)
            && Counted == other.Counted && Free == other.Free;

        public override int GetHashCode() => HashCode.Combine(RuntimeHelpers.GetHashCode(Move), Manner, Counted, Free);
    }

    private static Option? Find(ClassReview review, StationAt at, Func<DonePart, bool> good)
    {
        var main = review.Moves.Find(at.Station.Main.Move)!;
        var asked = DemandModel.Of(main.Id, at.Station.Main.Manner, review.Moves);
        var coached = Proposals.All(new Doing(main.Id, at.Station.Main.Manner), Tier.Easier, review.Moves)
            .Where(p => p.Differs is not null)
            .Select(p => p.Of)
            .Concat(Offers.Of(main, Tier.Instead, review.Moves).Select(o => o.Option));
        var own = Variations.Of(main, Tier.Easier, at.Station.Main.Manner).Select(v => v.Option);
        var family = review.Moves.Moves.Where(m => m.Family == main.Family && CanBeDosed(at, m)).Select(m => Option.Of(Tier.Easier, m.Id));
        bool IsGood(Option o) =>
            CanBeDosed(at, review.Moves.Find(o.Move)!)
                && at.Station.Dose.Select((part, i) => (part, i)).Where(p => p.part.Kind.IsWork)
            .All(p => DonePart.Of(p.part, p.i, o, at.Station, review.Moves) is { } done && good(done));
        var found = coached.FirstOrDefault(IsGood) ?? own.Concat(family)
            .Where(IsGood)
            .Select(o => (Option: o, Demand: DemandModel.Of(o.Move, o.Manner, review.Moves)))
            .Where(o => o.Demand is not null && asked is not null && o.Demand.Overall <= asked.Overall + Thresholds.Felt)
            .OrderBy(
                o => o.Demand!.Dimensions.Zip(asked!.Dimensions).Sum(
                    d => Math.Abs(d.First.Value - d.Second.Value)) + (o.Option.Move == main.Id ? 0 : 1))
            .Select(o => o.Option).FirstOrDefault();
        return found is null ? null : OptionEntry.Into(found, at.Station, review.Moves);
    }

    /// <summary>An option of a station, or one that is to be added there, by its move and what it does otherwise.</summary>
    protected static string Named(ClassReview review, StationAt at, Option option) =>
        Words.PlanWords.Option(option, at.Station, review.Moves, new Preferences());
}
