using System.Collections.Immutable;
using System.Text.Json.Nodes;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Checks;

/// <summary>Single changes that bring a class to its slot, the least costly first.</summary>
/// <remarks>
/// [M] The cost of a change is the share it takes away, times what that thing is worth to the class: a rest 1,
/// a work window 2, a whole round 3. Protected blocks are left alone. Nothing goes below its floor.
/// </remarks>
internal static class Trim
{
    private const int Step = 5;
    private const int Offers = 3;
    private static readonly Seconds RestFloor = new(15);
    private static readonly Seconds WorkFloor = new(15);

    private sealed record Way(Repair Repair, decimal Cost, Seconds Saves);

    public static ImmutableArray<Repair> Over(ClassReview review)
    {
        var over = review.Over;
        var open = review.Plan.Blocks.Select((block, i) => (Block: block, Index: i)).Where(b => b.Block.Keep != Keep.Protected).ToArray();
        var ways = open.Select(b => ShorterRest(b.Block, b.Index, over))
            .Concat(open.Select(b => ShorterWork(review, b.Block, b.Index, over)))
            .Concat(open.Select(b => OneRoundLess(review, b.Block, b.Index)));
        return
        [
            .. ways.OfType<Way>().Where(w => w.Saves >= over)
                .OrderBy(w => w.Cost).ThenBy(w => w.Saves).Take(Offers).Select(w => w.Repair),
        ];
    }

    /// <summary>One round more, wherever that still fits the slot.</summary>
    public static ImmutableArray<Repair> Under(ClassReview review) =>
    [
        .. review.Plan.Blocks.Select((block, i) =>
            block.Rounds is > 1 and < 20 && Length(review.Plan, i, block with { Rounds = block.Rounds + 1 }) is { } length && length <= review.Plan.Slot
                ? new Repair($"One round more of “{block.Name}”", [Edit.Set($"/blocks/{i}/rounds", block.Rounds + 1)])
                : null)
            .OfType<Repair>().Take(Offers),
    ];

    private static Way? ShorterRest(Block block, int index, Seconds over)
    {
        var (field, rest, what) = block.Shape == BlockShape.Sets
            ? ("betweenSets", block.BetweenSets, "rest between sets")
            : ("betweenRounds", block.BetweenRounds, "rest between rounds");
        var gaps = (block.Rounds - 1) * (block.Shape == BlockShape.Sets ? block.Stations.Length : 1);
        if (gaps == 0 || rest.Values.All(v => v <= RestFloor))
        {
            return null;
        }

        var total = Total(rest, block);
        for (var less = Step; less <= rest.Values.Max(v => v.Value); less += Step)
        {
            var shorter = new ByRound<Seconds>([.. rest.Values.Select(v => v <= RestFloor ? v : Later(RestFloor, v - new Seconds(less)))]);
            var saves = total - Total(shorter, block);
            if (saves >= over)
            {
                return new Way(
                    new Repair($"{Upper(what)} in “{block.Name}”: {Words(rest)} → {Words(shorter)}", [new Edit($"/blocks/{index}/{field}", Json(shorter))]),
                    (decimal)saves.Value / total.Value,
                    saves);
            }
        }

        return null;
    }

    private static Way? ShorterWork(ClassReview review, Block block, int index, Seconds over)
    {
        if (block.Shape == BlockShape.Rotation && block.Window is { Values: [var window] })
        {
            var goes = block.Rounds * block.Stations.Length;
            var less = (over.Value + goes - 1) / goes;
            var shorter = new Seconds(window.Value - (less + Step - 1) / Step * Step);
            return shorter < WorkFloor ? null : new Way(
                new Repair($"Window in “{block.Name}”: {window} → {shorter}", [Edit.Set($"/blocks/{index}/windowSeconds", shorter)]),
                2m * (window - shorter).Value / window.Value,
                new Seconds((window - shorter).Value * goes));
        }

        return ShorterGoes(review, block, index, over);
    }

    /// <summary>Every timed go of the block shorter by the same few seconds.</summary>
    private static Way? ShorterGoes(ClassReview review, Block block, int index, Seconds over)
    {
        var timed = block.Stations.SelectMany(s => s.Dose).Where(p => p.Kind == PartKind.Time && p.Amount.Values is [var a] && a.From == a.To).ToArray();
        if (timed.Length == 0 || block.StartEvery is not null)
        {
            return null;
        }

        var longest = timed.Max(p => p.Amount.At(0).To);
        for (var less = Step; less <= timed.Min(p => p.Amount.At(0).To) - WorkFloor.Value; less += Step)
        {
            var edits = ImmutableArray.CreateBuilder<Edit>();
            var stations = block.Stations.Select((station, s) => station with
            {
                Dose = [.. station.Dose.Select((part, p) =>
                {
                    if (!timed.Contains(part))
                    {
                        return part;
                    }

                    var amount = part.Amount.At(0).To - less;
                    edits.Add(Edit.Set($"/blocks/{index}/stations/{s}/dose/{p}/amount", amount));
                    return part with { Amount = new ByRound<Amount>(new Amount(amount, amount)) };
                })],
            }).ToImmutableArray();
            if (Length(review.Plan, index, block with { Stations = stations }) is { } length && review.Timeline.Length - length >= over)
            {
                return new Way(
                    new Repair($"Every go in “{block.Name}” {new Seconds(less)} shorter", edits.ToImmutable()),
                    2m * less / longest,
                    review.Timeline.Length - length);
            }
        }

        return null;
    }

    private static Way? OneRoundLess(ClassReview review, Block block, int index)
    {
        if (block.Rounds < 2 || block.OptionalRounds >= block.Rounds - 1 || Length(review.Plan, index, block with { Rounds = block.Rounds - 1 }) is not { } length)
        {
            return null;
        }

        return new Way(
            new Repair($"One round less of “{block.Name}”", [Edit.Set($"/blocks/{index}/rounds", block.Rounds - 1)]),
            3m / block.Rounds,
            review.Timeline.Length - length);
    }

    private static Seconds? Length(ClassPlan plan, int index, Block changed) =>
        Compiler.Compile(plan with { Blocks = plan.Blocks.SetItem(index, changed) }).Timeline?.Length;

    private static Seconds Total(ByRound<Seconds> rest, Block block) =>
        new(Enumerable.Range(0, block.Rounds - 1).Sum(gap => rest.At(gap).Value) * (block.Shape == BlockShape.Sets ? block.Stations.Length : 1));

    private static Seconds Later(Seconds a, Seconds b) => a > b ? a : b;

    private static string Words(ByRound<Seconds> rest) => string.Join(", ", rest.Values);

    private static JsonNode Json(ByRound<Seconds> rest) =>
        rest.Values is [var only] ? JsonValue.Create(only.Value) : new JsonArray([.. rest.Values.Select(v => (JsonNode)JsonValue.Create(v.Value))]);

    private static string Upper(string words) => char.ToUpperInvariant(words[0]) + words[1..];
}
