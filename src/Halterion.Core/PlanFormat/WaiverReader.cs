using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Halterion.Core.Plans;

namespace Halterion.Core.PlanFormat;

internal sealed partial class Context
{
    /// <summary>Findings seen and left, with the reason. A place that is gone is no fault; it waives nothing.</summary>
    private ImmutableArray<Waiver> Waivers(Fields fields, ClassPlan plan)
    {
        var items = fields.Items("waivers", 0, 200, "waivers");
        var read = ImmutableArray.CreateBuilder<Waiver>();
        for (var i = 0; i < items.Length; i++)
        {
            var waiver = new Fields(items[i], $"/waivers/{i}", faults);
            var code = waiver.Text("code", 1, 120, required: true);
            var place = waiver.Text("place", 0, 4000, required: true);
            var reason = waiver.Text("reason", 1, 400, required: true);
            waiver.Close("a waiver");
            if (code is not null && place is not null && reason is not null)
            {
                read.Add(new Waiver(code, Place(place, plan), reason));
            }
        }

        return read.ToImmutable();
    }

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
