using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Halterion.Core.Plans;

namespace Halterion.Core.PlanFormat;

internal sealed partial class Context
{
    /// <summary>Findings seen and left, with the reason. A place that is gone is no fault; it waives nothing.</summary>
    public ImmutableArray<Waiver> Waivers(Fields fields, ClassPlan plan) =>
    [
        .. fields.Items("waivers", 0, ClassTable.MostWaivers, "waivers")
            .Select((item, i) => PlanLanguage.Waiver.Read(this, new Fields(item, $"/waivers/{i}", faults), new Waiver("", default, "")))
            .Where(w => w.Place.Value is not null)
            .Select(w => w with { Place = Place(w.Place.Value, plan) }),
    ];

    /// <summary>A place as an id; one written as a JSON Pointer (older files) is the nearest thing around it that has an id.</summary>
    private static PlaceId Place(string written, ClassPlan plan)
    {
        if (written.Length > 0 && written[0] != '/')
        {
            return new PlaceId(written);
        }

        var tokens = written.Split('/')[1..];
        if (tokens is not ["blocks", var b, ..] || At(plan.Blocks, b) is not { } block)
        {
            return PlaceId.Class;
        }

        if (tokens is [_, _, "recovery", var r, ..])
        {
            return At(block.Recovery, r)?.Id ?? block.Id;
        }

        if (tokens is not [_, _, "stations", var s, ..] || At(block.Stations, s) is not { } station)
        {
            return block.Id;
        }

        return tokens switch
        {
            [_, _, _, _, "options", var o, ..] => At(station.Options, o)?.Id ?? station.Id,
            [_, _, _, _, "waiting", var w, ..] => At(station.Waiting, w)?.Id ?? station.Id,
            _ => station.Id,
        };
    }

    private static T? At<T>(ImmutableArray<T> list, string token) where T : class =>
        int.TryParse(token, NumberStyles.None, CultureInfo.InvariantCulture, out var i) && i < list.Length ? list[i] : null;
}
