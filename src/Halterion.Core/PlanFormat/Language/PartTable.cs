using Halterion.Core.Plans;

namespace Halterion.Core.PlanFormat;

/// <summary>The fields of one part of a dose, and which kinds take them.</summary>
internal sealed class PartTable : Table<Part>
{
    public const decimal UsualPace = 1.5m;

    public PartTable() : base("a part", "A part of a dose.")
    {
        var work = Of(k => k.IsWork, "");
        var reps = Of(k => k == PartKind.Reps, "tempo, style and pulses a rep belong to reps");

        // The kind is known before anything else is read.
        Add(new("kind", () => new OneWord<PartKind>().Schema(), (_, _, p, _) => p, p => WordsOf<PartKind>.Of(p.Kind)) { Required = true });
        Add("amount", new EachRound<Amount>(new AmountOrRange()), p => p.Amount, (p, v) => p with { Amount = v }, Required);
        Add("side", new OneWord<Side>(), p => Unless(Side.Both, p.Side), (p, v) => p with { Side = v }, only: work);
        Add("move", new MoveName(), p => p.OwnMove, (p, v) => p with { OwnMove = v }, only: work);
        Add("tempo", new TempoWords(moves: false), p => p.OwnTempo, (p, v) => p with { OwnTempo = v }, only: reps);
        Add("style", new OneWord<RepStyle>(), p => Unless(RepStyle.Full, p.Style), (p, v) => p with { Style = v }, only: reps);
        Add("pulsesPerRep", new WholeNumber(0, 10), p => Unless(0, p.PulsesPerRep), (p, v) => p with { PulsesPerRep = v }, only: reps);
        Add("pace", new DecimalNumber(0.01m, 60), p => p.Kind == PartKind.Distance ? Unless(UsualPace, p.Pace) : null,
            (p, v) => p with { Pace = v }, only: Of(k => k == PartKind.Distance, "a pace belongs to a distance"));
        Add("loadKg", new EachRound<decimal>(new DecimalNumber(0, 500)), p => p.LoadKg, (p, v) => p with { LoadKg = v }, only: work);
        Add("loadFactor", new EachRound<decimal>(new DecimalNumber(0.05m, 2)), p => p.LoadFactor, (p, v) => p with { LoadFactor = v },
            only: work);
        Add("effort", new WholeNumber(0, 10), p => p.Effort, (p, v) => p with { Effort = v }, only: work);
        Add("rounds", new WhichRounds(), p => p.Rounds is { Listed.Length: 0, First: true, Last: true } ? null : p.Rounds,
            (p, v) => p with { Rounds = v });
        Add("label", new PlainText(1, 120), p => p.Label, (p, v) => p with { Label = v });
    }

    /// <summary>The fields that a kind of part takes, in their order.</summary>
    public IEnumerable<string> TakenBy(PartKind kind)
    {
        var part = PlanLanguage.BlankPart with { Kind = kind };
        return All.Where(f => f.Only is not { } only || only.Takes(part, default)).Select(f => f.Name);
    }

    private static Belongs<Part, Anywhere> Of(Func<PartKind, bool> takes, string why) =>
        new((p, _) => takes(p.Kind), (p, _) => p.Kind.IsWork ? why : "a rest takes only amount, rounds and label");
}
