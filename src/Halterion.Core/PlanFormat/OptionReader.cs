using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;
using Halterion.Core.Body;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.PlanFormat;

internal sealed partial class Context
{
    /// <summary>Where options stand: at a station with a dose, or apart from one.</summary>
    private enum OptionPlace
    {
        Station,

        /// <summary>Recovery, and what the other one does while waiting.</summary>
        Apart,
    }

    /// <param name="byPlace">What the ids begin with where none are given.</param>
    private ImmutableArray<Option> Extra(Fields fields, string name, string byPlace) =>
        fields.Has(name) ? Options(fields, name, OptionPlace.Apart, byPlace) : [];

    private ImmutableArray<Option> Options(Fields fields, string name, OptionPlace place, string byPlace)
    {
        var items = fields.Items(name, 1, 9, "options", required: true);
        var tiers = 0;
        var options = ImmutableArray.CreateBuilder<Option>();
        for (var i = 0; i < items.Length; i++)
        {
            var option = Option(items[i], $"{fields.PointerTo(name)}/{i}", place, $"{byPlace}{i + 1}", out var tier);
            tiers += tier is Tier.Main or null ? 1 : 0;
            if (option is not null)
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

    private Option? Option(JsonElement element, string at, OptionPlace place, string byPlace, out Tier? tier)
    {
        var fields = new Fields(element, at, faults);
        var id = ids.Take(fields, byPlace);
        tier = fields.Choice<Tier>("tier", required: true);
        var move = Move(fields, "move", required: true);
        var isMain = tier == Tier.Main;
        var parts = ImmutableSortedDictionary<int, PartManner>.Empty;
        SideRule? sides = null;
        int? chunk = null;
        if (place == OptionPlace.Apart)
        {
            fields.Refuse("there is no dose here to have parts or sides", "parts", "sides", "chunk");
        }
        else if (isMain)
        {
            fields.Refuse("the main option is done as the station says", "sides", "chunk");
            parts = PartManners(fields, isMain);
        }
        else
        {
            (sides, chunk) = (fields.Choice<SideRule>("sides"), fields.Whole("chunk", 1, 1000));
            parts = PartManners(fields, isMain);
        }

        var manner = Manner(fields, isMain || place == OptionPlace.Apart);
        var note = fields.Text("note", 0, 4000);
        fields.Close("an option");
        return tier is { } t ? new Option(id, t, move ?? default, manner, parts, note, sides, chunk) : null;
    }

    private ImmutableSortedDictionary<int, PartManner> PartManners(Fields fields, bool isMain)
    {
        var parts = ImmutableSortedDictionary.CreateBuilder<int, PartManner>();
        if (fields.Take("parts") is not { } value)
        {
            return parts.ToImmutable();
        }

        var map = new Fields(value, fields.PointerTo("parts"), faults);
        foreach (var name in map.Names.ToArray())
        {
            var entry = map.Take(name)!.Value;
            if (!int.TryParse(
                name,
                NumberStyles.None,
                CultureInfo.InvariantCulture,
                out var number) || number < 1 || number.ToString(CultureInfo.InvariantCulture) != name)
            {
                map.Fault(name, $"“{(name.Length > 40 ? name[..40] + "…" : name)}” is no part number.", "the number of a part, from 1");
                continue;
            }

            var inner = new Fields(entry, map.PointerTo(name), faults);
            var move = Move(inner, "move", required: false);
            parts[number] = new PartManner(move, Manner(inner, isMain));
            inner.Close("a part of an option");
        }

        return parts.ToImmutable();
    }

    public Manner MannerOf(JsonElement element)
    {
        var fields = new Fields(element, "", faults);
        var manner = Manner(fields, unscaled: false);
        fields.Close("a manner");
        return manner;
    }

    private Manner Manner(Fields fields, bool unscaled)
    {
        var tempo = ReadTempo(fields);
        if (tempo is not null && tempo.RepSeconds(RepStyle.Full) <= 0)
        {
            fields.Fault("tempo", $"A rep at {tempo} takes no time.", "a tempo that takes more than 0 s a rep");
        }

        var manner = new Manner
        {
            Depth = fields.Choice<Depth>("depth"),
            Support = fields.Choice<Support>("support"),
            Base = fields.Choice<Footing>("base"),
            Toes = fields.Choice<Toes>("toes"),
            Step = fields.Choice<StepLength>("step"),
            Trunk = fields.Choice<TrunkLean>("trunk"),
            Arms = fields.Choice<ArmPlace>("arms"),
            Surface = fields.Choice<Surface>("surface"),
            HeightCm = fields.Whole("heightCm", 0, 120),
            Impact = fields.Choice<Impact>("impact"),
            Band = fields.Choice<BandStrength>("band"),
            Grip = fields.Choice<Grip>("grip"),
            Tempo = tempo,
            Load = Load(fields),
        };
        if (unscaled)
        {
            fields.Refuse("only options beside a main one, at a station, are scaled", "scale");
            return manner;
        }

        return manner with { Scale = fields.Decimal("scale", 0.1m, 2) };
    }

    private Load? Load(Fields fields)
    {
        if (fields.Take("load") is not { } value)
        {
            return null;
        }

        if (value.ValueKind == JsonValueKind.String && value.ValueEquals("none"))
        {
            return Plans.Load.None;
        }

        var load = new Fields(value, fields.PointerTo("load"), faults);
        var read = new Load(
            load.Choice<Implement>("implement", required: true),
            load.Whole("count", 1, 2),
            load.Decimal("kg", 0.25m, 300) is { } kg ? new Kilograms(kg) : null,
            load.Choice<LoadPosition>("position"),
            load.Choice<LoadSide>("side"));
        load.Close("a load");
        return read;
    }
}
