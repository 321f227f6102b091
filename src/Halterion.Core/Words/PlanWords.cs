using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core.Body;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Words;

/// <summary>A plan in the words of the trade, for screens, cards and calls.</summary>
public static class PlanWords
{
    /// <summary>A station's target in a round, such as "12 reps each side" or "40 s, half on each side".</summary>
    public static string Target(Station station, Block block, int round)
    {
        var parts = station.Dose.Where(p => p.Rounds.Has(round, block.Rounds)).Select(p => Part(p, round));
        var dose = string.Join(" + ", parts);
        var sides = (station.Sides, block.SidePass) switch
        {
            _ when dose.Length == 0 => "not this round",
            (SideRule.Each, _) => station.Chunk > 0 ? $" each side, by {station.Chunk}" : " each side",
            (SideRule.Split, _) => ", half on each side",
            _ => "",
        };
        return dose + sides + (station.Turns ? ", in pairs" : "");
    }

    /// <summary>A station's target through all rounds: the one target, or those of the rounds that differ.</summary>
    public static string Targets(Station station, Block block)
    {
        var each = Enumerable.Range(0, block.Shape.IsInRounds ? block.Rounds : 1)
            .Select(round => Target(station, block, round))
            .ToArray();
        return each.Distinct().Count() == 1 ? each[0] : string.Join(" / ", each);
    }

    /// <summary>
    /// A whole dose as it is understood, every round and every part of it: "20, then 15, then 12 reps; in the last round also
    /// 15 s hold and 15 pulses; each side".
    /// </summary>
    public static string Whole(Station station, Block block)
    {
        var rounds = block.Shape.IsInRounds ? block.Rounds : 1;
        var words = new List<string>();
        foreach (var parts in station.Dose.GroupBy(p => When(p.Rounds, rounds)))
        {
            var said = string.Join(" and ", parts.Select(p => Through(p, rounds)));
            words.Add(parts.Key.Length == 0 ? said : words.Count == 0 ? $"{parts.Key}: {said}" : $"{parts.Key} also {said}");
        }

        if (station.Sides != SideRule.AsWritten)
        {
            words.Add(station.Sides == SideRule.Split ? "half on each side" : station.Chunk > 0 ? $"each side, "
                + $"switching every {station.Chunk}"
                : "all of one side, then the other");
        }

        if (station.Turns)
        {
            words.Add("two take turns");
        }

        return string.Join("; ", words);
    }

    private static string When(PartRounds when, int rounds) => when switch
    {
        { Listed: [var only] } => $"in round {only}",
        { Listed.Length: > 0 } => $"in rounds {string.Join(", ", when.Listed)}",
        { First: true, Last: true } => "",
        { First: true } => rounds == 1 ? "" : "in the first round",
        _ => rounds == 1 ? "" : "in the last round",
    };

    /// <summary>A part with its amounts round by round, its tempo, its load and how it is done.</summary>
    private static string Through(Part part, int rounds)
    {
        var told = part.Amount.Values.Take(rounds).ToArray();
        var last = Part(part, Math.Min(told.Length, rounds) - 1);
        var extra = new List<string?>
        {
            part.OwnTempo is { } tempo ? $"at tempo {tempo}" : null,
            part.Style switch
            {
                RepStyle.OneAndAHalf => "one-and-a-half",
                RepStyle.DeadStop => "from a dead stop",
                RepStyle.ConstantTension => "without locking out",
                RepStyle.Full => null,
            },
            part.PulsesPerRep > 0 ? $"with {part.PulsesPerRep} pulses each" : null,
            part.LoadKg is { } kg
                ? $"with {InTurn(kg.Values.Take(rounds))} kg" : null,
            part.LoadFactor is { } share
                ? $"at {InTurn(share.Values.Take(rounds).Select(f => 100 * f))}% of their usual load" : null,
            part.Effort is { } effort ? $"effort {effort} out of 10" : null,
        };
        var amounts = told.Length > 1 && told.Distinct().Count() > 1 ? string.Join("", told[..^1].Select(a => $"{a}, then ")) : "";
        return string.Join(' ', new[] { amounts + last }.Concat(extra.OfType<string>()));
    }

    private static string InTurn(IEnumerable<decimal> values) =>
        string.Join(", then ", values.Select(v => v.ToString("0.##", CultureInfo.InvariantCulture)));

    /// <summary>How a block runs: "circuit, 3 rounds, 15 s between stations, 60 s between rounds".</summary>
    public static string Runs(Block block)
    {
        var words = new List<string?>
        {
            block.Shape switch
            {
                BlockShape.Talk => null,
                BlockShape.OwnPace => Goal(block) is { Length: > 0 } goal ? $"own pace, goal {goal}" : "own pace",
                BlockShape.Rotation => "rotation",
                BlockShape.Sets => "straight sets",
                BlockShape.OnTheClock => $"a start every {block.StartEvery}",
                BlockShape.Circuit => block.Stations.Length == 1 ? null : "circuit",
            },
            block.Rounds > 1 && block.Shape.IsInRounds
                ? $"{block.Rounds} {block.Shape.RoundWord}s"
                    + $"{(block.OptionalRounds > 0 ? $" ({block.OptionalRounds} optional)" : "")}"
                : null,
            block.SidePass switch
            {
                SidePass.Round => "each round on the left, then on the right",
                SidePass.Alternate => "sides alternate by round",
                SidePass.Station => null,
            },
            block.Window is { } window ? $"{string.Join("/", window.Values.Select(v => v.Value))} s work" : null,
            block.BetweenStations > Seconds.Zero ? $"{block.BetweenStations} changeover" : null,
            block.Shape == BlockShape.Sets && block.BetweenSets.Values.Any(v => v > Seconds.Zero)
                ? $"{string.Join("/", block.BetweenSets.Values.Select(v => v.Value))} s between sets"
                : null,
            block.Rounds > 1 && block.BetweenRounds.Values.Any(v => v > Seconds.Zero)
                ? $"{string.Join("/", block.BetweenRounds.Values.Select(v => v.Value))} s between "
                    + $"rounds{(block.Water ? " with a drink break" : "")}"
                : null,
            block.Shape == BlockShape.Talk && block.Water ? "drink break" : null,
            block.Stations.Any(s => s.WithNext) ? "linked stations: one side, then the other" : null,
            block.Recovery.IsEmpty ? null : block.RecoveryIn == RecoveryIn.All ? "easy movement in changeovers and "
                + "rests" : "easy movement in the rests",
            block.After > Seconds.Zero ? $"{block.After} rest afterwards" : null,
            block.ShownBy is { } who ? $"led by {who}" : null,
        };
        return string.Join(", ", words.OfType<string>());
    }

    /// <summary>What a part is called: its move, or the station's own name where it is that one's move; a label follows the name.</summary>
    public static string Work(Part part, Station station, MoveLibrary moves)
    {
        var name = part.Move == station.Main.Move && station.HasOwnName ? station.Name : moves.Find(part.Move)?.Name ?? station.Name;
        return part.Label is { Length: > 0 } label && !name.Contains(label, StringComparison.OrdinalIgnoreCase) ? $"{name}, {label}" : name;
    }

    /// <summary>One part, such as "10 pulses". It always says whether a number means reps or seconds.</summary>
    public static string Part(Part part, int round)
    {
        return part.Kind.Said(part.Amount.At(round)) + part.Side switch
        {
            Side.Left => ", left side",
            Side.Right => ", right side",
            Side.Alternate => ", alternating sides",
            Side.Both => "",
        };
    }

    /// <summary>An option, such as "Bodyweight squat, half depth".</summary>
    public static string Option(Option option, MoveLibrary moves, Preferences preferences)
    {
        var words = new List<string> { moves.Find(option.Move)?.Name ?? option.Move.Value };
        words.AddRange(Manner(option.Manner, preferences));
        if (Sides(option) is { } sides)
        {
            words.Add(sides);
        }

        if (option.Note is { Length: > 0 } note)
        {
            words.Add(note);
        }

        return string.Join(", ", words);
    }

    /// <summary>
    /// An option of a station: a main one as it is, any other with what it does otherwise: "Bodyweight squat, half the depth".
    /// </summary>
    public static string Option(Option option, Station station, MoveLibrary moves, Preferences preferences) => option.Tier == Tier.Main
        ? Option(option, moves, preferences)
        : string.Join(", ",
            new[] { moves.Find(option.Move)?.Name ?? option.Move.Value,
                Differs.Of(option, station, moves, preferences) }.Where(w => w.Length > 0))
            + Weighs(option, station, moves, preferences);

    /// <summary>How much another weight is, where the difference says only that it is one: " (6 kg kettlebell)".</summary>
    private static string Weighs(Option option, Station station, MoveLibrary moves, Preferences preferences) =>
        option.Manner.Load is { Kg: not null } load && load != station.Main.Manner.Load
            && !Differs.Of(option, station, moves, preferences).Contains(Load(load, preferences.Weight)!, StringComparison.Ordinal)
            // Where it is held is in the difference already.
            ? $" ({Load(load with { Position = null, Side = null }, preferences.Weight)})"
            : "";

    /// <summary>How an option deals with the sides inside its station's time, where it differs.</summary>
    internal static string? Sides(Option option)
    {
        var words = option.Sides switch
        {
            SideRule.AsWritten => "both sides at once",
            SideRule.Each => "each side",
            SideRule.Split => "half on each side",
            SideRule.Alternate => "alternating sides",
            _ => null,
        };
        return option.Chunk is { } chunk ? $"{words ?? "each side"}, by {chunk}" : words;
    }

    /// <summary>What own pace has for a goal: "100 reps all together, 3 rounds"; empty without one.</summary>
    public static string Goal(Block block)
    {
        var reps = block.GoalReps is { } goal ? $"{goal} reps{(block.GoalShared ? " shared by everyone" : "")}" : null;
        var rounds = block.GoalRounds ? $"{block.Rounds} {(block.Rounds == 1 ? "round" : "rounds")}" : null;
        return string.Join(", ", new[] { reps, rounds }.OfType<string>());
    }

    /// <summary>A tier as it is called: "alternative" for what a file names instead.</summary>
    public static string Of(Tier tier) => tier == Tier.Instead ? "alternative" : tier.ToString().ToLowerInvariant();

    /// <summary>A tempo for people who do not read it in figures: "3 s down, 1 s hold, up fast".</summary>
    public static string Said(Tempo tempo)
    {
        var fast = tempo.Text.Split('-');
        string Way(int phase, decimal seconds, string way) => fast[phase] == "X" ? $"{way} fast"
            : string.Create(CultureInfo.InvariantCulture, $"{seconds:0.##} s {way}");
        string?[] phases =
        [
            tempo.Lower > 0 ? Way(0, tempo.Lower, "down") : null,
            tempo.Pause > 0 ? Way(1, tempo.Pause, "hold") : null,
            tempo.Lift > 0 ? Way(2, tempo.Lift, "up") : null,
            tempo.Top > 0 ? Way(3, tempo.Top, "at the top") : null,
        ];
        return string.Join(", ", phases.OfType<string>());
    }

    /// <summary>How the instructor stands to show something; null where nothing is said.</summary>
    public static string? From(Viewpoint? view) => view switch
    {
        Viewpoint.Side => "from the side",
        Viewpoint.Front => "from the front",
        Viewpoint.Back => "from the back",
        Viewpoint.Turn => "turning round",
        _ => null,
    };

    /// <summary>A station of a walk-through, such as "from the front, easier first".</summary>
    public static string Showing(Showing showing, Station station)
    {
        var view = From(showing.View ?? station.View?.At(0));
        var first = showing.First == Tier.Main ? null : $"starting with {Of(showing.First)}";
        return string.Join(", ", new[] { view, first }.OfType<string>());
    }

    /// <summary>What a side means in a move, as it is said to people: "left foot in front".</summary>
    public static string Of(Side side, Move? move) => side switch
    {
        Side.Left or Side.Right when move?.SideSay is { Length: > 0 } said =>
            said.Replace("{side}", side.ToString().ToLowerInvariant(), StringComparison.Ordinal),
        Side.Left or Side.Right => $"{side.ToString().ToLowerInvariant()} {move?.SideMeans ?? "side"}",
        Side.Alternate => "alternating sides",
        Side.Both => "",
    };

    /// <summary>Which round or set of how many: "Round 2 of 3"; empty where there is one round alone, which needs no number.</summary>
    /// <param name="round">From 0.</param>
    public static string Rounds(Block block, int round) => block.Rounds > 1 || block.Shape == BlockShape.Sets
        ? $"{block.Shape.RoundWord.Capital()} {round + 1} of {block.Rounds}"
        : "";

    internal static IEnumerable<string> Manner(Manner manner, Preferences preferences)
    {
        ImmutableArray<string?> words =
        [
            manner.Depth switch
            {
                null => null,
                Depth.Small => "small range",
                Depth.Parallel => "to level thighs",
                Depth.Knee => "hands to knee height",
                Depth.MidShin => "hands to mid-shin",
                Depth.Floor => "hands to the floor",
                { } depth => $"{Word(depth)} depth",
            },
            manner.Support switch
            {
                null or Support.None => null,
                Support.Hand => "holding on with one hand",
                Support.TwoHands => "with both hands",
                Support.HandOnThigh => "hand on thigh",
                Support.Helper => "with a helper",
                Support.Knees => "knees down",
                Support.Forearms => "on the forearms",
                { } support => $"hand on the {Word(support)}",
            },
            manner.Base switch
            {
                null => null,
                Footing.FrontRaised => "front foot raised",
                Footing.RearRaised => "rear foot raised",
                Footing.Single => "on one leg",
                { } footing => $"{Word(footing)} stance",
            },
            manner.Toes is { } toes ? $"toes {(toes == Toes.Ahead ? "forward" : Word(toes))}" : null,
            manner.Step is { } step ? $"{Word(step)} step" : null,
            manner.Trunk is { } trunk ? $"trunk {Word(trunk)}" : null,
            manner.Arms is { } arms ? $"arms {Word(arms)}" : null,
            (manner.Surface, manner.HeightCm) switch
            {
                (null, null) => null,
                (null, { } height) => $"{Height(height, preferences.Length)} high",
                ({ } surface, null) => $"on {Word(surface)}",
                ({ } surface, { } height) => $"on a {Word(surface)}, {Height(height, preferences.Length)}",
            },
            manner.Impact is { } impact and not Impact.None ? $"with a {Word(impact)}" : null,
            manner.Band is { } band and not BandStrength.None ? $"{Word(band)} band" : null,
            manner.Tempo is null ? null : $"tempo {manner.Tempo}",
            manner.Grip switch
            {
                null => null,
                Grip.Over => "overhand grip",
                { } grip => $"{Word(grip)} grip",
            },
            Load(manner.Load, preferences.Weight),
            manner.Scale is { } scale ? string.Create(CultureInfo.InvariantCulture, $"{scale * 100:0.##}% of the target") : null,
        ];
        return words.OfType<string>();
    }

    /// <summary>A height as it is shown; an inch is 2.54 cm.</summary>
    public static string Height(decimal cm, LengthUnit unit) => unit == LengthUnit.In
        ? string.Create(CultureInfo.InvariantCulture, $"{cm / 2.54m:0.#} in")
        : string.Create(CultureInfo.InvariantCulture, $"{cm:0.#} cm");

    /// <summary>A weight as it is shown; a pound is 0.45359237 kg.</summary>
    public static string Weight(Kilograms weight, WeightUnit unit) => unit == WeightUnit.Lb
        ? string.Create(CultureInfo.InvariantCulture, $"{weight.Value / 0.45359237m:0.#} lb")
        : string.Create(CultureInfo.InvariantCulture, $"{weight.Value:0.##} kg");

    internal static string Word<T>(T word) where T : struct, Enum => WordsOf<T>.Of(word);

    internal static string? Load(Load? load, WeightUnit unit)
    {
        if (load is null)
        {
            return null;
        }

        if (load.IsNone)
        {
            return "with nothing in the hands";
        }

        var count = load.Count == 2 ? "2 × " : "";
        var kg = load.Kg is { } weight ? Weight(weight, unit) + " " : "";
        var where = load.Position is not { } position ? "" : position switch
        {
            LoadPosition.Goblet => " at the chest",
            LoadPosition.Sides => " at the sides",
            LoadPosition.FrontRack => " in the front rack",
            LoadPosition.Low => " held low",
            LoadPosition.Shoulders => " on the shoulders",
            LoadPosition.Rack => " in the rack position",
            LoadPosition.Back => " on the back",
            LoadPosition.Overhead => " overhead",
            LoadPosition.Hips => " across the hips",
        };
        var side = load.Side switch
        {
            LoadSide.Same => " on the working side",
            LoadSide.Opposite => " on the side opposite the working leg",
            null or LoadSide.Both => "",
        };
        return $"{count}{kg}{(load.Implement is { } implement ? Word(implement) : "weight")}{where}{side}";
    }
}
