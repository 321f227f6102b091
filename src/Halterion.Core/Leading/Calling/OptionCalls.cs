using System.Collections.Immutable;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.Plans;
using Halterion.Core.Words;

namespace Halterion.Core.Leading.Calling;

/// <summary>The easier, the harder and the instead, by what is otherwise in them.</summary>
internal sealed class OptionCalls(ClassPlan plan, Preferences schools)
{
    /// <summary>Of fewer rounds the last is not special.</summary>
    private const int ManyRounds = 3;

    private static readonly Tier[] Tiers = [Tier.Easier, Tier.Harder, Tier.Instead];

    /// <summary>The first of each tier, then all others while there is room.</summary>
    /// <param name="isFirstOfAll">Its station has not been worked at yet.</param>
    public IEnumerable<CallWish> Of(Go go, bool isFirstOfAll)
    {
        if (go is { Follows: Follows.Part, Station: not null })
        {
            return OfPart(go);
        }

        if (go.Station is not { } station || !go.IsFirstOfStation || go.Follows == Follows.StringSide)
        {
            return [];
        }

        var isLastOfMany = go.Block.Rounds >= ManyRounds && go.Span.Round == go.Block.Rounds - 1;
        if (!isFirstOfAll && !isLastOfMany)
        {
            return [];
        }

        return Said(go, station);
    }

    /// <summary>Options that differ in this part, as it begins for the first time: by what is otherwise in them here.</summary>
    private IEnumerable<CallWish> OfPart(Go go)
    {
        var (station, part) = (go.Station!, go.Span.Part!.Value);
        if (go.Span.Round is > 0 || !station.Options.Any(o => o.Tier != Tier.Main && o.Parts.ContainsKey(part + 1)))
        {
            return [];
        }

        // What it does otherwise throughout was said before; here only what is its own in this part.
        var main = station.Main.In(station, part);
        Option Here(Option option)
        {
            var (move, manner) = option.Tier == Tier.Main ? main : option.In(station, part);
            var own = option.Parts.GetValueOrDefault(part + 1)?.Manner;
            return option with
            {
                Move = move,
                Manner = option.Tier == Tier.Main || own is null ? manner : move == main.Move ? own.Over(main.Manner) : own,
                Parts = ImmutableSortedDictionary<int, PartManner>.Empty,
            };
        }

        return Said(go, station with
        {
            Options = [.. station.Options.Where(o => o.Tier == Tier.Main || o.Parts.ContainsKey(part + 1)).Select(Here)],
        });
    }

    /// <summary>In the gap before a go where there is one, else in its first third.</summary>
    private IEnumerable<CallWish> Said(Go go, Station station)
    {
        var (from, until) = go.Gap > 0 ? (go.FreeFrom, go.Start) : (go.Start, go.Start + Math.Round(go.Length / 3, 1));
        var said = Differs.Of(station, plan.Moves, schools);
        var ordered = station.Options.Select((option, i) => (Option: option, Words: said[i]))
            .Where(o => o.Words is not null && o.Option.Tier != Tier.Main)
            .GroupBy(o => o.Option.Tier)
            .SelectMany(tier => tier.Select((o, place) => (o.Option, o.Words, Place: place)))
            .OrderBy(o => o.Place).ThenBy(o => Array.IndexOf(Tiers, o.Option.Tier));
        return ordered.Select(o => new CallWish(
            CallKind.Tier, Order.Option - Math.Min(o.Place, 4), Texts(o.Option, o.Words!, station), from, from, until, go.Index, go.Index));
    }

    private ImmutableArray<string> Texts(Option option, string differs, Station station)
    {
        var name = option.Move == station.Main.Move ? "" : plan.Moves.Find(option.Move)?.Name ?? "";
        var head = option.Tier switch
        {
            Tier.Easier => "Easier",
            Tier.Harder => "Harder",
            Tier.Instead => Spared(option, station),
            Tier.Main => "",
        };
        string[] texts = name.Length == 0 ? [$"{head}: {differs}"]
            : differs.Length == 0 ? [$"{head}: {name}"]
            : [$"{head}: {name}, {differs}", $"{head}: {name}"];
        return [.. texts.Select(t => t.EndsWith('.') ? t[..^1] : t)];
    }

    /// <summary>
    /// What an alternative spares, where the coach gives it for that and the main move has it; else only that it is another.
    /// </summary>
    private string Spared(Option option, Station station)
    {
        var main = plan.Moves.Find(station.Main.Move);
        var why = main is null ? null
            : Offers.Of(main, Tier.Instead, plan.Moves).FirstOrDefault(o => o.Option.Move == option.Move)?.For;
        var manner = station.Main.Manner;
        return why switch
        {
            "knees" when main!.Position is Position.Kneeling or Position.HandsAndKnees => "No kneeling",
            "jump" => "No jump",
            "back" or "pregnancy" or "floor" when main!.Position == Position.OnTheBack => "Not on the back",
            "kit" when manner.Band is not (null or BandStrength.None) || Has(main!, "band") => "No band",
            "kit" when manner.Load is { IsNone: false } || main!.Poses?.Holds is not null => "No weight",
            _ => "Or",
        };
    }

    private static bool Has(Move move, string kit) => move.Kit.Any(k => k.Contains(kit, StringComparison.Ordinal));
}
