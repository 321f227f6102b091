using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.Words;

/// <summary>
/// What an option does otherwise than its station's main one, in words: as a coach says it where the move's own offers have it, else
/// made from the fields. Empty only for another move done plainly of which nothing is said; no two options of a station alike.
/// </summary>
public static class Differs
{
    /// <summary>Of every option but the main one, by its place; null for that.</summary>
    public static ImmutableArray<string?> Of(Station station, MoveLibrary moves, Preferences preferences)
    {
        var said = station.Options.Select(o => o.Tier == Tier.Main ? [] : Phrases(o, station, moves, preferences)).ToArray();
        var many = Enumerable.Repeat(1, said.Length).ToArray();
        string? Now(int i) => said[i].Length == 0 ? null : string.Join(", ", said[i].Take(many[i]));
        // Where two still agree, the next word is added.
        for (var more = true; more;)
        {
            more = false;
            foreach (var alike in Enumerable.Range(0, said.Length)
                    .Where(i => said[i].Length > 0)
                    .GroupBy(Now)
                    .Where(g => g.Count() > 1)
                    .ToArray())
            {
                foreach (var i in alike.Where(i => many[i] < said[i].Length))
                {
                    many[i]++;
                    more = true;
                }
            }
        }

        return [.. Enumerable.Range(0, said.Length).Select(Now)];
    }

    /// <summary>Of one option, where it stands alone.</summary>
    public static string Of(Option option, Station station, MoveLibrary moves, Preferences preferences) =>
        station.Options.IndexOf(option) is >= 0 and var at && Of(station, moves, preferences)[at] is { } words ? words
            : string.Join(", ", Phrases(option, station, moves, preferences).Take(1));

    /// <summary>Of one option, with the name first of another move: "Wall sit, two hands"; "Half depth".</summary>
    public static string Named(Option option, Station station, MoveLibrary moves, Preferences preferences)
    {
        var name = option.Move == station.Main.Move ? "" : moves.Find(option.Move)?.Name ?? option.Move.Value;
        return string.Join(", ", new[] { name, Of(option, station, moves, preferences) }.Where(w => w.Length > 0)).Capital();
    }

    /// <summary>What a coach says of it; null where the move's offers do not have it.</summary>
    public static string? Coached(Option option, Option main, MoveLibrary moves) =>
        moves.Find(main.Move) is not { } move ? null
            : Offers.Of(move, moves).FirstOrDefault(o => o.Option.Move == option.Move && IsIt(o.Option, option, main, move))?.Differs;

    private static bool IsIt(Option offer, Option option, Option main, Move move)
    {
        if (offer.Sides is { } sides && option.Sides is { } own && sides != own
            || !option.Parts.IsEmpty
            || offer.Manner.Scale is not null && offer.Manner.Scale != option.Manner.Scale)
        {
            return false;
        }

        // Of the same move nothing that main has may be missing: it would have to be said too.
        var same = option.Move == main.Move;
        var wanted = same ? offer.Manner.Over(main.Manner) : offer.Manner;
        var (says, does) = (offer.Manner.Load, same && Equals(option.Manner.Load, main.Manner.Load) ? null : option.Manner.Load);
        return (wanted with { Load = null, Scale = null }).Equals(option.Manner with { Load = null, Scale = null })
            && SameWay(says, does, main, move);
    }

    /// <summary>Both lighter or both heavier, by the same implement; kilograms are the plan's own.</summary>
    private static bool SameWay(Load? says, Load? does, Option main, Move move)
    {
        if (says is null || does is null)
        {
            return says is null && does is null;
        }

        double Of(Load load) => (double)(load.Kg?.Value ?? 0) * (load.Count ?? 1);
        var usual = move.Usual?.Kilograms ?? 0;
        var now = main.Manner.Load is { Kg: not null } held ? Of(held) : usual;
        return says.IsNone == does.IsNone && (says.IsNone || Math.Sign(Of(says) - usual) == Math.Sign(Of(does) - now))
            && (says.Position is null || does.Position is null || says.Position == does.Position);
    }

    private static string[] Phrases(Option option, Station station, MoveLibrary moves, Preferences preferences)
    {
        var main = station.Main;
        var words = new List<string>();
        var other = option.Move != main.Move;
        if (Coached(option, main, moves) is { } coached)
        {
            words.Add(coached);
        }

        if (option.Note is { Length: > 0 } note)
        {
            words.Add(note);
        }

        if (!other)
        {
            words.AddRange(Left(option.Manner, main.Manner));
        }

        words.AddRange(Set(option, other ? new Manner() : main.Manner, station, moves.Find(option.Move), preferences));
        return words.Count == 0 && !other ? ["as the main option"] : [.. words.Distinct()];
    }

    /// <summary>What main has and the option has not.</summary>
    private static IEnumerable<string> Left(Manner option, Manner main)
    {
        if (main.Load is { IsNone: false } && option.Load is null or { IsNone: true })
        {
            yield return "without the weight";
        }

        if (main.Band is not (null or BandStrength.None) && option.Band is null or BandStrength.None)
        {
            yield return "without the band";
        }

        if (main.Impact is Impact.Hop or Impact.Jump && option.Impact is null or Impact.None)
        {
            yield return main.Impact == Impact.Hop ? "no hop" : "no jump";
        }

        if (main.Support is not (null or Support.None) && option.Support is null or Support.None)
        {
            yield return "hands free";
        }
    }

    /// <summary>What the option sets otherwise: load, band, impact, support, surface, depth, base, step, tempo, then the rest.</summary>
    private static IEnumerable<string> Set(Option option, Manner main, Station station, Move? move, Preferences preferences)
    {
        var now = option.Manner;
        string?[] words =
        [
            now.Load is null || now.Load == main.Load || now.Load.IsNone && main.Load is not null
                ? null
                : LoadWords(now.Load, main.Load, move, compares: option.Move == station.Main.Move, preferences),
            now.Band == main.Band ? null : now.Band switch
            {
                null => null,
                BandStrength.None => main.Band is null ? "without the band" : null,
                { } band =>
                    band > (main.Band ?? BandStrength.None) && main.Band is not null ? "a stronger band" : $"a {PlanWords.Word(band)} band",
            },
            now.Impact == main.Impact ? null : now.Impact switch
            {
                null => null,
                Impact.None => main.Impact is null ? "no jump" : null,
                { } impact => $"with a {PlanWords.Word(impact)}",
            },
            .. Rest(now, main, preferences),
            now.Tempo is null || now.Tempo == main.Tempo ? null : TempoWords(now.Tempo, main.Tempo ?? move?.Tempo),
            now.Scale is { } scale && scale != 1 ? AmountWords(scale, station) : null,
            option.Sides is null && option.Chunk is null ? null : PlanWords.Sides(option),
        ];
        return words.OfType<string>();
    }

    /// <summary>Support, surface, depth, base, step and the rest, as the words of a manner.</summary>
    private static IEnumerable<string> Rest(Manner now, Manner main, Preferences preferences)
    {
        Manner[] one =
        [
            now.Support is Support.None ? new() : new() { Support = now.Support },
            new() { Surface = now.Surface, HeightCm = now.HeightCm },
            new() { Depth = now.Depth },
            new() { Base = now.Base },
            new() { Step = now.Step },
            new() { Toes = now.Toes },
            new() { Trunk = now.Trunk },
            new() { Arms = now.Arms },
            new() { Grip = now.Grip },
        ];
        Manner[] was =
        [
            new() { Support = main.Support },
            new() { Surface = main.Surface, HeightCm = main.HeightCm },
            new() { Depth = main.Depth },
            new() { Base = main.Base },
            new() { Step = main.Step },
            new() { Toes = main.Toes },
            new() { Trunk = main.Trunk },
            new() { Arms = main.Arms },
            new() { Grip = main.Grip },
        ];
        return one.Zip(was).Where(p => !p.First.Equals(p.Second)).SelectMany(p => PlanWords.Manner(p.First, preferences));
    }

    /// <param name="compares">It is the main option's own move: lighter or heavier than what that holds says more than kilograms.</param>
    private static string LoadWords(Load now, Load? main, Move? move, bool compares, Preferences preferences)
    {
        if (now.IsNone)
        {
            return move?.Poses?.Holds is { } held ? $"without the {held.Kind}" : "without a weight";
        }

        double? Of(Load? load) => load is { Kg: { } kg } ? (double)kg.Value * (load.Count ?? 1) : null;
        var was = Of(main) ?? move?.Usual?.Kilograms;
        return compares && Of(now) is { } kg && was is { } before && kg != before && (main is null || now.Position == main.Position)
            ? kg < before ? "a lighter weight" : "a heavier weight"
            : PlanWords.Load(now, preferences.Weight)!;
    }

    /// <summary>"slower down", "a stop at the bottom".</summary>
    private static string TempoWords(Tempo now, Tempo? was)
    {
        if (was is null)
        {
            return $"at {now}";
        }

        string? Way(decimal is_, decimal before, string way) => is_ > before ? $"slower {way}" : is_ < before ? $"quicker {way}" : null;
        var words = new[]
        {
            Way(now.Lower, was.Lower, "down"),
            now.Pause > was.Pause
                ? string.Create(CultureInfo.InvariantCulture, $"a stop of {now.Pause:0.##}")
                : now.Pause < was.Pause ? "no stop"
                : null,
            Way(now.Lift, was.Lift, "up"),
            now.Top > was.Top ? "a stop at the end" : now.Top < was.Top ? "no stop at the end" : null,
        };
        return string.Join(", ", words.OfType<string>()) is { Length: > 0 } said ? said : $"at {now}";
    }

    private static string AmountWords(decimal scale, Station station)
    {
        var what = (station.Dose.FirstOrDefault(p => p.Kind.IsWork)?.Kind ?? PartKind.Time).Noun;
        return scale == 0.5m ? $"half the {what}" : scale < 1 ? what == "time" ? "less time" : $"fewer {what}" : $"more {what}";
    }
}
