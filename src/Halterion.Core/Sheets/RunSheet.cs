using System.Collections.Immutable;
using System.Globalization;
using Halterion.Core.Body;
using Halterion.Core.Demands;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using Halterion.Core.Views;
using Halterion.Core.Words;

namespace Halterion.Core.Sheets;

/// <summary>A station on the run sheet.</summary>
/// <param name="Figure">Of the main option; null for a move that has none.</param>
/// <param name="Main">The main option with its stance, weight and hand.</param>
/// <param name="Instead">Alternatives, for care or other kit.</param>
/// <param name="Lies">The kit that lies there; empty without any.</param>
/// <param name="Begins">Who begins there in a rotation, by the names they are called; empty elsewhere.</param>
public sealed record SheetStation(
    PlaceId Id, string Name, string Target, ImmutableArray<string> Harder, string Main, ImmutableArray<string> Easier,
    ImmutableArray<string> Instead, Figure? Figure, string Lies = "", string Begins = "");

/// <summary>A block on the run sheet.</summary>
/// <param name="At">Clock time where the class is booked, else the time from its start.</param>
/// <param name="Words">How it runs: rounds, changes, rests.</param>
/// <param name="Lines">What is said, shown and noted: a line each.</param>
public sealed record SheetBlock(
    PlaceId Id,
    string Name,
    string At,
    string Length,
    string Words,
    ImmutableArray<string> Lines, ImmutableArray<SheetStation> Stations);

/// <summary>How tightly a sheet must be set to stay on one page.</summary>
public enum Density
{
    /// <summary>Lines far apart.</summary>
    Roomy,
    /// <summary>The usual.</summary>
    Normal,
    /// <summary>Lines close together.</summary>
    Tight,
    /// <summary>As close as can be read.</summary>
    Tightest,
}

/// <summary>A class on one page, to be read at arm's length.</summary>
/// <param name="Booked">Such as "18:00, 60 min".</param>
/// <param name="Focus">The cue of the day; empty without one.</param>
/// <param name="Bring">What people bring or wear; empty where nothing is said.</param>
public sealed record RunSheet(
    string Title,
    string Booked,
    string Ends,
    string Notes,
    string Focus,
    string Bring,
    Density Density,
    ImmutableArray<SheetBlock> Blocks)
{
    /// <param name="startsAt">Wall-clock start; null: times count from the start of the class.</param>
    public static RunSheet Of(ClassPlan plan, Timeline timeline, DateTime? startsAt, Preferences preferences)
    {
        var blocks = plan.Blocks.Select((block, i) => Block(plan, timeline, block, i, startsAt, preferences)).ToImmutableArray();

        // Lines as set: a heading and its rule, then two lines a station, three where its main option has to be described.
        var lines = blocks.Sum(b => 3 + b.Lines.Length + b.Stations.Sum(s => s.Main == s.Name ? 2 : 3));
        var density = lines <= 40 ? Density.Roomy : lines <= 60 ? Density.Normal : lines <= 95 ? Density.Tight : Density.Tightest;
        return new RunSheet(
            plan.Title,
            startsAt is { } start
                ? $"{start.ToString("ddd d MMM yyyy", CultureInfo.InvariantCulture)}, {ClockTime.Of(start, preferences.Clock)}, "
                    + $"{plan.SlotMinutes} min"
                : $"{plan.SlotMinutes} min",
            ClockTime.At(startsAt, timeline.Length, preferences.Clock),
            plan.Notes,
            plan.Focus ?? "",
            plan.Bring ?? "",
            density,
            blocks);
    }

    /// <summary>The same with what lies where and who begins where. Nobody's care stands on it.</summary>
    public RunSheet In(RoomView room)
    {
        var stations = room.Stations.ToDictionary(s => s.Station);
        var names = room.People.ToDictionary(p => p.Id, p => p.Called);
        return this with
        {
            Blocks =
            [
                .. Blocks.Select(block => block with
                {
                    Stations =
                    [
                        .. block.Stations.Select((s, i) => s with
                        {
                            Lies = stations.TryGetValue(s.Id, out var station) ? string.Join(", ", station.Lies) : "",
                            Begins = room.Groups.FirstOrDefault(g => g.Block == block.Id) is { } groups
                                ? string.Join(", ", groups.Groups[i].People.Select(p => names[p])
                                    .Concat(groups.Groups[i].Unnamed is > 0 and var more ? [$"{more} more"] : Array.Empty<string>()))
                                : "",
                        }),
                    ],
                }),
            ],
        };
    }

    private static SheetBlock Block(ClassPlan plan, Timeline timeline, Block block, int index, DateTime? startsAt, Preferences preferences)
    {
        var spans = timeline.Spans.Where(s => s.Block == index).ToArray();
        var start = spans.Length == 0 ? Seconds.Zero : spans[0].Start;
        var length = spans.Length == 0 ? Seconds.Zero : spans[^1].End - start;
        return new SheetBlock(
            block.Id,
            block.Name,
            ClockTime.At(startsAt, start, preferences.Clock),
            length.ToString(),
            PlanWords.Runs(block),
            [.. Lines(plan, block)],
            [.. block.Stations.Select(s => Station(s, block, plan, preferences))]);
    }

    private static IEnumerable<string> Lines(ClassPlan plan, Block block)
    {
        if (block.Say is { } said)
        {
            yield return $"Say: {said.Text}";
        }

        foreach (var showing in block.Show)
        {
            if (plan.Find(showing.Station) is { } found)
            {
                yield return string.Join(
                    ", ",
                    new[] { $"Show {found.Station.Name}", showing.Seconds.ToString(),
                        PlanWords.Showing(showing, found.Station) }.Where(w => w.Length > 0));
            }
        }

        foreach (var station in block.Stations.Where(s => s.Say is not null))
        {
            yield return $"Say before {station.Name}: {station.Say!.Text}";
        }

        if (block.Notes.Length > 0)
        {
            yield return block.Notes;
        }
    }

    private static SheetStation Station(Station station, Block block, ClassPlan plan, Preferences preferences)
    {
        ImmutableArray<string> Of(Tier tier) =>
            [.. station.Options.Where(o => o.Tier == tier).Select(o => PlanWords.Option(o, station, plan.Moves, preferences))];
        var figure = OptionFigure.Of(
            plan.Moves.Find(station.Main.Move)!, station.Main.Manner, plan.Moves, felt: false, side: station.OnlySide);
        return new SheetStation(
            station.Id, station.Name, PlanWords.Targets(station, block), Of(Tier.Harder), Of(Tier.Main)[0], Of(Tier.Easier),
            Of(Tier.Instead), figure);
    }
}

/// <summary>Times of day as an instructor reads them.</summary>
public static class ClockTime
{
    /// <summary>A time of day in words.</summary>
    public static string Of(DateTime time, ClockFormat format) =>
        time.ToString(format == ClockFormat.H12 ? "h:mm tt" : "HH:mm", CultureInfo.InvariantCulture).ToLowerInvariant();

    /// <summary>The time of day, to the second; without a booked start the time from the start.</summary>
    public static string At(DateTime? start, Seconds after, ClockFormat format)
    {
        if (start is { } booked)
        {
            return (booked + TimeSpan.FromSeconds(after.Value)).ToString(
                format == ClockFormat.H12 ? "h:mm:ss tt" : "HH:mm:ss",
                CultureInfo.InvariantCulture).ToLowerInvariant();
        }

        var time = TimeSpan.FromSeconds(after.Value);
        return time.TotalHours >= 1
            ? time.ToString(@"h\:mm\:ss", CultureInfo.InvariantCulture)
            : time.ToString(@"m\:ss", CultureInfo.InvariantCulture);
    }
}
