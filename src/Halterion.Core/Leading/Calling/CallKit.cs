using System.Globalization;
using Halterion.Core.Body;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Leading.Calling;

/// <summary>What is held, worn and lain on, and what happens with it from go to go.</summary>
internal sealed class CallKit
{
    /// <summary>In a shorter rest people keep what they hold. leading.md, 6.</summary>
    private const decimal LongRest = 20;

    private readonly Dictionary<(Option, int?), MoveLoad?> held = [];

    /// <summary>
    /// Where the one weight is in a go of a side, in whole and in brief; empty where both hands hold it, or none does. As the load says
    /// it; where no load is written, as the move is drawn for a working right side.
    /// </summary>
    public (string Words, string Brief) HandOf(Go go, Side side)
    {
        var load = MannerOf(go).Load;
        var hand = load switch
        {
            { IsNone: true } => Side.Both,
            { Side: LoadSide.Same } => side,
            { Side: LoadSide.Opposite } => side.Other(),
            { } => Side.Both,
            null => Held(go)?.By switch
            {
                CarriedBy.RightHand => side,
                CarriedBy.LeftHand => side.Other(),
                null or CarriedBy.BothHands or CarriedBy.EachHand or CarriedBy.Shoulders or CarriedBy.Hips => Side.Both,
            },
        };
        if (hand is not (Side.Left or Side.Right))
        {
            return ("", "");
        }

        var which = hand == Side.Left ? "left" : "right";
        return load?.Position switch
        {
            LoadPosition.Rack or LoadPosition.FrontRack or LoadPosition.Shoulders => ($"at your {which} shoulder", $"{which} shoulder"),
            LoadPosition.Hips => ($"on your {which} hip", $"{which} hip"),
            LoadPosition.Goblet or LoadPosition.Back => ("", ""),
            LoadPosition.Sides or LoadPosition.Overhead or LoadPosition.Low or null =>
                ($"weight in your {which} hand", $"weight {which}"),
        };
    }

    /// <summary>What is fetched for a go: "2 dumbbells, light band"; empty where nothing is.</summary>
    public string Fetched(Go go)
    {
        var load = Held(go);
        string?[] words = [load is null ? null : Named(load), BandOf(go) is { Length: > 0 } band ? band : null];
        return string.Join(", ", words.OfType<string>());
    }

    /// <summary>What happens with weights, bands and the body between a go and the one before it.</summary>
    public IEnumerable<CallWish> Of(Go go)
    {
        if (go.Before is not { Station: not null } before || go.Station is null || go.Follows is Follows.Same or Follows.Turn)
        {
            return go is { Before: null, Station: not null } ? [.. Ups(go, null)] : [];
        }

        return [.. Downs(before, go), .. Ups(go, before)];
    }

    /// <summary>What is put away when nothing is worked any more.</summary>
    public IEnumerable<CallWish> After(Go last, decimal end) => last.Station is null ? []
        : PutDown(last, null).Select(text => Down(text, last.End, end, last.Index, last.Index + 1));

    private IEnumerable<CallWish> Downs(Go before, Go go) =>
        PutDown(before, go).Select(text => Down(text, before.End, go.Gap > 0 ? go.Start : go.Start + 3, go.Index, go.Index));

    private static CallWish Down(string text, decimal from, decimal until, int scene, int shift) =>
        new(CallKind.Kit, Order.KitDown, [text], from, from, until, scene, shift) { OverTalk = true };

    private IEnumerable<string> PutDown(Go before, Go? go)
    {
        var (had, has) = (Held(before), go is null ? null : Held(go));
        var isLongRest = go is not null && go.Gap >= LongRest;
        if (had is not null && Changes(before, go) is { } lighter && go!.Follows == Follows.Part)
        {
            yield return lighter;
        }
        else if (had is not null && (has is null || had.Kind != has.Kind || had.By != has.By || isLongRest))
        {
            var down = had.By == CarriedBy.EachHand ? "Weights down" : "Weight down";
            yield return has is not null && !isLongRest ? $"{down}, take {Named(has)}" : down;
        }

        var (off, on) = (BandOf(before), go is null ? "" : BandOf(go));
        if (off.Length > 0 && off != on)
        {
            yield return IsAnchored(before) ? "Let go of the band" : "Band off";
        }
    }

    private IEnumerable<CallWish> Ups(Go go, Go? before)
    {
        var (had, has) = (before is null ? null : Held(before), Held(go));
        var isLongRest = go.Gap >= LongRest;
        var texts = new List<string>();
        if (before is not null && Position(before) != Position(go) && Into(Position(go)) is { } into)
        {
            texts.Add(into);
        }

        if (has is not null && (had is null || (isLongRest && had.Kind == has.Kind)) && before is not null)
        {
            texts.Add(had is null ? $"Take {Named(has)}" : has.By == CarriedBy.EachHand ? "Weights up" : "Weight up");
        }

        var isNew = before is null || had is null || before.Station!.Id != go.Station!.Id || isLongRest;
        if (has is not null && isNew && Raised(MannerOf(go).Load?.Position, has.By == CarriedBy.EachHand) is { } raised)
        {
            texts.Add(raised);
        }

        var (was, on) = (before is null ? "" : BandOf(before), BandOf(go));
        if (on.Length > 0 && on != was && before is not null)
        {
            texts.Add(IsAnchored(go) ? "Take the band" : $"{on.Capital()} on");
        }

        // Twelve to eight seconds before the work, so that what is next can be said first; in less, as soon as there is time.
        var (from, best, until) = go.Gap > 0
            ? (Math.Max(go.FreeFrom, go.Start - 12), Math.Max(go.FreeFrom, go.Start - 8), go.Start)
            : (go.Start, go.Start, go.Start + 3);
        return texts.Select(text => new CallWish(CallKind.Kit, Order.KitUp, [text], from, best, until, go.Index, go.Index)
        { OverTalk = true });
    }

    /// <summary>In a drop set: what the load comes down to, or what is taken off.</summary>
    private static string? Changes(Go before, Go? go)
    {
        var round = go?.Span.Round ?? 0;
        if (before.Part?.LoadKg is { } was && go?.Part?.LoadKg is { } now && now.At(round) < was.At(round))
        {
            return string.Create(CultureInfo.InvariantCulture, $"Down to {now.At(round):0.##} kilos");
        }

        if (before.Part?.LoadFactor is { } share && go?.Part?.LoadFactor is { } next && next.At(round) < share.At(round))
        {
            return string.Create(CultureInfo.InvariantCulture, $"Down to {100 * next.At(round):0} percent");
        }

        // What stands between two parts of one dose; a go of another station, or of the next round, follows none of its parts.
        var between = go is { Follows: Follows.Part } && before.Span.Part is { } first && go.Span.Part is { } then && then > first
            ? go.Station!.Dose[(first + 1)..then].FirstOrDefault(p => !p.Kind.IsWork)?.Label
            : null;
        return between is { Length: > 0 } ? between.Capital() : null;
    }

    private static string? Raised(LoadPosition? position, bool isPair) => position switch
    {
        LoadPosition.Shoulders or LoadPosition.Rack or LoadPosition.FrontRack or LoadPosition.Back =>
            isPair ? "Weights up to the shoulders" : "Weight to the shoulders",
        LoadPosition.Hips => "Weight onto the hips",
        LoadPosition.Goblet or LoadPosition.Sides or LoadPosition.Overhead or LoadPosition.Low or null => null,
    };

    private Position Position(Go go) => go.Move?.Position ?? Moves.Position.Standing;

    private static string? Into(Position position) => position switch
    {
        Moves.Position.OnTheBack => "Onto your back",
        Moves.Position.SideLying => "Onto your side",
        Moves.Position.HandsAndKnees => "Onto hands and knees",
        Moves.Position.Kneeling => "Down to kneeling",
        Moves.Position.Seated => "Sit down",
        Moves.Position.Prone => "Onto your front",
        Moves.Position.Standing => "Stand up",
        Moves.Position.Bench or Moves.Position.Machine => null,
    };

    private static string Named(MoveLoad load) => load.By == CarriedBy.EachHand ? $"2 {load.Kind}s" : $"a {load.Kind}";

    private static Manner MannerOf(Go go)
    {
        var main = go.Station!.Main;
        return go.Span.Part is { } part && main.Parts.TryGetValue(part + 1, out var own) ? own.Manner.Over(main.Manner) : main.Manner;
    }

    private MoveLoad? Held(Go go)
    {
        var main = go.Station!.Main;
        var key = (main, go.Span.Part);
        if (!held.TryGetValue(key, out var load))
        {
            held[key] = load = go.Move is { } move ? OptionPoses.Of(move, MannerOf(go))?.Holds : null;
        }

        return load is { Kind: "stick" } ? null : load;
    }

    private string BandOf(Go go) => MannerOf(go).Band is { } band
        ? band == BandStrength.None ? "" : $"{WordsOf<BandStrength>.Of(band)} band"
        : go.Move?.Kit.FirstOrDefault(k => k.Contains("band", StringComparison.Ordinal)) ?? "";

    private static bool IsAnchored(Go go) => go.Move?.Poses?.Band is
        BandAt.AnchorBehind or BandAt.AnchorHigh or BandAt.AnchorAhead or BandAt.AnchorBack or BandAt.AnchorAnkle;
}
