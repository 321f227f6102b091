using System.Collections.Immutable;
using Halterion.Core.Moves;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using Halterion.Core.Words;

namespace Halterion.Core.Leading.Calling;

/// <summary>What comes next: the move, how much, the side and what to fetch, ten to fifteen seconds before it.</summary>
internal sealed class NextCalls(CallKit kit, MoveLibrary moves)
{
    private const decimal Latest = 10;
    private const decimal Earliest = 15;

    /// <summary>In a gap of ten seconds the bell before it is let ring out.</summary>
    private const decimal LatestInATightGap = 9.5m;

    /// <summary>A lead-in of more has it twice.</summary>
    private const decimal LongLeadIn = 30;

    public IEnumerable<CallWish> Of(Go go, ImmutableArray<Span> spans)
    {
        if (go.Follows is Follows.Side or Follows.StringSide or Follows.Turn or Follows.Same)
        {
            yield break;
        }

        if (IsBelow(go))
        {
            // Where what is left is counted, its first number says it.
            if (go.Part!.Kind == PartKind.Hold || go.Count != Counting.Down)
            {
                yield return new CallWish(
                    CallKind.Next, Order.Hold, [Below(go)], go.Start, go.Start, go.Start + 5, go.Index, go.Index)
                { BegunBy = go.Start };
            }

            yield break;
        }

        var texts = Texts(go);
        var (from, best, latest) = When(go);
        // Where a weight has to be put down first, what is next is said late rather than not at all.
        yield return Wish(go, texts, from, best, latest) with
        {
            Else = Wish(go, texts, latest, latest,
            go.Start) with
            { Until = go.Start }
        };
        if (go.Index > 0 && spans[go.Index - 1] is { Kind: SpanKind.LeadIn } leadIn && leadIn.Length().Value > LongLeadIn)
        {
            yield return Wish(go, texts, leadIn.Start.Value, leadIn.Start.Value, leadIn.Start.Value + 5);
        }
    }

    private static CallWish Wish(Go go, ImmutableArray<string> texts, decimal from, decimal best, decimal latest) =>
        new(CallKind.Next, Order.Next, texts, from, best, Math.Max(go.Start, latest + 10), go.Index, go.Index)
        { BegunBy = latest, OverTalk = true, Clips = [Clip.Next, .. Clip.Of(go.OneSide)] };

    /// <summary>A hold or pulses that follow at once in the same station, side and move are no station of their own.</summary>
    public static bool IsBelow(Go go) =>
        go is { Follows: Follows.Part, Part.Kind: PartKind.Hold or PartKind.Pulses, Before: { } before }
        && before.End == go.Start && before.OneSide == go.OneSide && before.Part!.Move == go.Part.Move;

    /// <summary>"Hold it, 20 seconds"; "10 pulses".</summary>
    public static string Below(Go go) => go.Part!.Kind == PartKind.Hold ? $"Hold it, {go.Length:0} seconds" : Amount(go);

    private static (decimal From, decimal Best, decimal Latest) When(Go go)
    {
        if (go.Start == 0)
        {
            return (0, 0, 1);
        }

        if (go.Gap >= Latest)
        {
            var latest = go.Start - (go.Gap == Latest ? LatestInATightGap : Latest);
            return (Math.Max(go.FreeFrom, go.Start - Earliest), Math.Max(go.FreeFrom, go.Start - 12), latest);
        }

        // In the go before, between two numbers; where that is shorter, at its first free place.
        var first = go.Before?.Start ?? 0;
        return first > go.Start - Latest
            ? (first, first, go.Start)
            : (Math.Max(first, go.Start - Earliest), Math.Max(first, go.Start - 12), go.Start - Latest);
    }

    private ImmutableArray<string> Texts(Go go)
    {
        var head = go.Before is null ? "First" : "Next";
        if (go.Span.Leg is { } leg)
        {
            return leg == 0
                ? [$"{go.Block.Name}: go to your first station", $"{head}: to your first station"]
                : [$"{head}: move on one station, {Counted.Spelled(leg + 1)} of "
                    + $"{Counted.Spelled(go.Block.Stations.Length)}", $"{head}: move on one station"];
        }

        if (go.Station is not { } station)
        {
            var goal = PlanWords.Goal(go.Block);
            var pace = go.Block.Name.Contains("own pace", StringComparison.OrdinalIgnoreCase) ? "" : ", at your own pace";
            return [$"{head}: {go.Block.Name}{pace}{(goal.Length > 0 ? $", goal {goal}" : "")}", $"{head}: {go.Block.Name}"];
        }

        var side = go.OneSide is { } one ? PlanWords.Of(one, go.Move) : "";
        var (amount, fetch) = (Amount(go), kit.Fetched(go));
        var name = go.Follows == Follows.Set ? "" : PlanWords.Work(go.Part!, station, moves);
        string Said(params string[] parts) => $"{head}: {string.Join(", ", parts.Where(p => p.Length > 0))}";
        string[] texts =
        [
            Said(name, amount, side, fetch), Said(name, amount, side), Said(name, amount), name.Length > 0 ? Said(name) : "",
        ];
        return [.. texts.Where(t => t.Length > 0).Distinct()];
    }

    /// <summary>How much one go of it is, with its unit in words.</summary>
    public static string Amount(Go go)
    {
        var (part, amount) = (go.Part!, go.Span.Amount ?? (int)go.Length);
        var range = part.Amount.At(go.Span.Round ?? 0);
        var many = go.Station!.Sides == SideRule.Split ? $"{go.Length:0}"
            : range.From < range.To && go.Station.Chunk == 0 ? range.ToString() : $"{amount}";
        var turns = go.Span.Side == Side.Alternate ? ", alternating sides" : "";
        return part.Kind switch
        {
            PartKind.Reps => $"{many} {(many == "1" ? "rep" : "reps")}",
            PartKind.Time => $"{many} seconds",
            PartKind.Hold => $"{many} seconds held",
            PartKind.Pulses => $"{many} pulses",
            PartKind.Open => $"as many as you can, {many} seconds at most",
            PartKind.Distance => $"{many} metres",
            PartKind.Rest => $"{many} seconds rest",
        } + turns;
    }
}
