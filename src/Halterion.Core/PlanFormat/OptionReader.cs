using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.PlanFormat;

/// <summary>Options, of which one is the main one. Which fields there are <see cref="OptionTable"/> says.</summary>
internal sealed partial class Context
{
    /// <param name="byPlace">What the ids begin with where none are given.</param>
    public ImmutableArray<Option> Options(Fields fields, string name, OptionsAt at, string byPlace)
    {
        var items = fields.Items(name, 1, OptionTable.MostOptions, "options", required: true);
        var tiers = 0;
        var options = ImmutableArray.CreateBuilder<Option>();
        for (var i = 0; i < items.Length; i++)
        {
            var inner = new Fields(items[i], $"{fields.PointerTo(name)}/{i}", faults);
            var tier = inner.Choice<Tier>("tier", required: true);
            var option = PlanLanguage.Option.Read(
                this, inner, PlanLanguage.BlankOption with { Tier = tier ?? Tier.Easier }, new OptionPlace(at, $"{byPlace}{i + 1}"));
            tiers += tier is Tier.Main or null ? 1 : 0;
            if (tier is not null)
            {
                options.Add(option);
            }
        }

        var mains = options.Count(o => o.Tier == Tier.Main);
        if (items.Length > 0 && (tiers == 0 || mains > 1))
        {
            fields.Fault(name, mains > 1 ? $"There are {mains} main options." : "There is no main option.", "exactly one option "
                + "of tier main");
        }

        return options.ToImmutable();
    }

    /// <summary>Where an option differs, by the number of the part from 1.</summary>
    public ImmutableSortedDictionary<int, PartManner> PartManners(Fields fields, bool ofMain)
    {
        var parts = ImmutableSortedDictionary.CreateBuilder<int, PartManner>();
        if (fields.Take("parts") is not { } value)
        {
            return parts.ToImmutable();
        }

        var map = fields.Inside(value, "parts", null);
        foreach (var name in map.Names.ToArray())
        {
            var entry = map.Take(name)!.Value;
            if (!int.TryParse(name, NumberStyles.None, CultureInfo.InvariantCulture, out var number) || number < 1
                || number.ToString(CultureInfo.InvariantCulture) != name)
            {
                map.Fault(name, $"“{Fields.Short(name)}” is not a part number.", "the number of a part, from 1");
                continue;
            }

            parts[number] = PlanLanguage.PartManner.Read(
                this, map.Inside(entry, name, null), PlanLanguage.BlankPartManner, ofMain ? PartOf.MainOption : PartOf.OtherOption);
        }

        return parts.ToImmutable();
    }

    public static JsonObject? PartManners(ImmutableSortedDictionary<int, PartManner> parts) => parts.IsEmpty ? null : new JsonObject(
        parts.Select(p => KeyValuePair.Create<string, JsonNode?>(
            p.Key.ToString(CultureInfo.InvariantCulture), PlanLanguage.PartManner.Write(p.Value))));

    public Manner MannerOf(JsonElement element) => PlanLanguage.Manner.Read(this, new Fields(element, "", faults), new Manner());
}
