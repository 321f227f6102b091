using System.Collections.Immutable;
using Halterion.Core.Body;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Words;

namespace Halterion.Core.Leading.Calling;

/// <summary>What is held and worn at stations, in words that are called.</summary>
internal sealed class CallKit(ClassPlan plan, Preferences schools)
{
    private readonly Dictionary<Option, MoveLoad?> held = [];

    /// <summary>
    /// The hand that holds the one weight in a go of a side; empty where it is both, or none. Poses are drawn for a working right side.
    /// </summary>
    public string HandOf(Station station, Side side) => (Held(station.Main)?.By, side) switch
    {
        (CarriedBy.RightHand, Side.Right) or (CarriedBy.LeftHand, Side.Left) => "right",
        (CarriedBy.RightHand, Side.Left) or (CarriedBy.LeftHand, Side.Right) => "left",
        _ => "",
    };

    /// <summary>What is fetched for a station: "2 dumbbells, light band"; empty where nothing is.</summary>
    public string Words(Station station)
    {
        var band = BandOf(station);
        var load = Held(station.Main);
        var words = new[]
        {
            load is null || load.Kind == "stick" ? "" : load.By == CarriedBy.EachHand ? $"2 {load.Kind}s" : load.Kind,
            band,
        };
        return string.Join(", ", words.Where(w => w.Length > 0));
    }

    /// <summary>What happens with weights and bands between two stations.</summary>
    /// <param name="to">Null: nothing follows.</param>
    public IEnumerable<string> Changes(Station from, Station? to)
    {
        var (had, has) = (Held(from.Main), to is null ? null : Held(to.Main));
        if (had is not null && (has is null || had.Kind != has.Kind))
        {
            yield return had.By == CarriedBy.EachHand ? "Weights down" : "Weight down";
        }

        if (to is not null && has is not null
            && to.Main.Manner.Load?.Position is LoadPosition.Shoulders or LoadPosition.Rack or LoadPosition.FrontRack or LoadPosition.Back
            && (had is null || from.Id != to.Id))
        {
            yield return has.By == CarriedBy.EachHand ? "Weights to the shoulders" : "Weight to the shoulders";
        }

        var (off, on) = (BandOf(from), to is null ? "" : BandOf(to));
        if (off != on)
        {
            yield return on.Length == 0 ? "Band off" : $"{on.Capital()} on";
        }
    }

    /// <summary>An option as it is offered: whole, without the move that is done already, or by its move's name alone.</summary>
    public ImmutableArray<string> OptionWords(string tier, Option option, Station station)
    {
        var differs = Differs.Of(option, station, plan.Moves, schools);
        var name = plan.Moves.Find(option.Move)?.Name ?? "";
        return option.Move == station.Main.Move ? [$"{tier}: {differs}"]
            : Differs.Coached(option, station.Main, plan.Moves) is null
                ? differs.Length == 0
                ? [$"{tier}: {name}"]
                : [$"{tier}: {name}, {differs}", $"{tier}: {name}"]
            : [$"{tier}: {differs}"];
    }

    private MoveLoad? Held(Option option)
    {
        if (!held.TryGetValue(option, out var load))
        {
            held[option] = load = plan.Moves.Find(option.Move) is { } move ? OptionPoses.Of(move, option.Manner)?.Holds : null;
        }

        return load;
    }

    private string BandOf(Station station) =>
        station.Main.Manner.Band is { } band ? (band == BandStrength.None ? "" : $"{WordsOf<BandStrength>.Of(band)} band")
        : plan.Moves.Find(station.Main.Move)?.Kit.FirstOrDefault(k => k.Contains("band", StringComparison.Ordinal)) ?? "";
}
