using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core.Moves;

namespace Halterion.Core.Plans;

/// <summary>A plan in the words of the trade, for screens, cards and calls.</summary>
public static class PlanWords
{
    /// <summary>A station's target in a round, such as "12 reps each side" or "40 s, half a side".</summary>
    public static string Target(Station station, Block block, int round)
    {
        var parts = station.Dose.Where(p => p.Rounds.Has(round, block.Rounds)).Select(p => Part(p, round));
        var dose = string.Join(" + ", parts);
        var sides = (station.Sides, block.SidePass) switch
        {
            _ when dose.Length == 0 => "left out this round",
            (SideRule.Each, _) => station.Chunk > 0 ? $" each side, by {station.Chunk}" : " each side",
            (SideRule.Split, _) => ", half a side",
            _ => "",
        };
        return dose + sides + (station.Turns ? ", in turns" : "");
    }

    /// <summary>One part, such as "10 pulses". It always says whether a number means reps or seconds.</summary>
    public static string Part(Part part, int round)
    {
        var amount = part.Amount.At(round);
        var words = part.Kind switch
        {
            PartKind.Reps => amount.To == 1 && amount.From == 1 ? "1 rep" : $"{amount} reps",
            PartKind.Hold => $"{amount} s hold",
            PartKind.Pulses => $"{amount} pulses",
            PartKind.Open => $"up to {amount} s",
            PartKind.Distance => $"{amount} m",
            PartKind.Rest => $"{amount} s rest",
            _ => $"{amount} s",
        };
        return words + part.Side switch
        {
            Side.Left => " left",
            Side.Right => " right",
            Side.Alternate => " alternating",
            _ => "",
        };
    }

    /// <summary>An option, such as "Bodyweight squat, half depth".</summary>
    public static string Option(Option option, MoveLibrary moves)
    {
        var words = new List<string> { moves.Find(option.Move)?.Name ?? option.Move.Value };
        words.AddRange(Manner(option.Manner));
        if (option.Note is { Length: > 0 } note)
        {
            words.Add(note);
        }

        return string.Join(", ", words);
    }

    /// <summary>What a side means in a move: "left foot in front".</summary>
    public static string Of(Side side, Move? move) => (side, move?.SideMeans) switch
    {
        (Side.Left, { } means) => $"left {means}",
        (Side.Right, { } means) => $"right {means}",
        (Side.Left, null) => "left side",
        (Side.Right, null) => "right side",
        (Side.Alternate, _) => "sides in turn",
        _ => "",
    };

    public static string Rounds(Block block, int round) => block.Shape switch
    {
        BlockShape.Sets => $"Set {round + 1} of {block.Rounds}",
        _ when block.Rounds > 1 => $"Round {round + 1} of {block.Rounds}",
        _ => "",
    };

    private static IEnumerable<string> Manner(Manner manner)
    {
        ImmutableArray<string?> words =
        [
            manner.Depth switch
            {
                null => null,
                "small" => "small range",
                "quarter" or "half" or "full" => $"{manner.Depth} depth",
                "parallel" => "thighs level",
                "knee" => "hands to the knee",
                "midShin" => "hands to mid-shin",
                _ => "to the floor",
            },
            manner.Support switch
            {
                null or "none" => null,
                "hand" => "hand hold",
                "twoHands" => "two hands",
                "handOnThigh" => "hand on thigh",
                "helper" => "with a helper",
                _ => $"{manner.Support} for support",
            },
            manner.Base switch
            {
                null => null,
                "frontRaised" => "front foot raised",
                "rearRaised" => "rear foot raised",
                "single" => "on one leg",
                _ => $"{manner.Base} stance",
            },
            manner.Toes is null ? null : $"toes {manner.Toes}",
            manner.Step is null ? null : $"{manner.Step} step",
            manner.Trunk is null ? null : $"trunk {manner.Trunk}",
            manner.Arms is null ? null : $"arms {manner.Arms}",
            (manner.Surface, manner.HeightCm) switch
            {
                (null, null) => null,
                (null, { } height) => $"{height} cm high",
                ({ } surface, null) => $"on {surface}",
                ({ } surface, { } height) => $"on {surface}, {height} cm",
            },
            manner.Impact is null or "none" ? null : $"with a {manner.Impact}",
            manner.Band is null or "none" ? null : $"{manner.Band} band",
            manner.Tempo is null ? null : $"at {manner.Tempo}",
            Load(manner.Load),
            manner.Scale is { } scale ? string.Create(CultureInfo.InvariantCulture, $"{scale * 100:0.##} % of the target") : null,
        ];
        return words.OfType<string>();
    }

    private static string? Load(Load? load)
    {
        if (load is null)
        {
            return null;
        }

        var count = load.Count == 2 ? "2 × " : "";
        var kg = load.Kg is { } weight ? string.Create(CultureInfo.InvariantCulture, $"{weight.Value:0.##} kg ") : "";
        var where = load.Position switch
        {
            null => "",
            "goblet" => " at the chest",
            "sides" => " at the sides",
            "frontRack" => " in front rack",
            "low" => " held low",
            _ => $", {load.Position}",
        };
        return $"{count}{kg}{load.Implement ?? "load"}{where}";
    }
}
