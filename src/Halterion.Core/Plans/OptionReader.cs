using System.Collections.Immutable;
using System.Globalization;
using System.Text.Json;

namespace Halterion.Core.Plans;

internal sealed partial class Context
{
    /// <summary>Options that stand apart from a dose: recovery, and what the other one does while waiting.</summary>
    private ImmutableArray<Option> Extra(Fields fields, string name) =>
        fields.Has(name) ? Options(fields, name, withDose: false) : MarkSeen(fields, name);

    private static ImmutableArray<Option> MarkSeen(Fields fields, string name)
    {
        fields.Take(name);
        return [];
    }

    private ImmutableArray<Option> Options(Fields fields, string name, bool withDose = true)
    {
        var items = fields.Items(name, 1, 9, "options", required: true);
        var tiers = 0;
        var options = ImmutableArray.CreateBuilder<Option>();
        for (var i = 0; i < items.Length; i++)
        {
            var option = Option(items[i], $"{fields.PointerTo(name)}/{i}", withDose, out var tier);
            tiers += tier is Tier.Main or null ? 1 : 0;
            if (option is not null)
            {
                options.Add(option);
            }
        }

        var mains = options.Count(o => o.Tier == Tier.Main);
        if (items.Length > 0 && (tiers == 0 || mains > 1))
        {
            fields.Fault(name, mains > 1 ? $"There are {mains} main options." : "There is no main option.", "exactly one option of tier main");
        }

        return options.ToImmutable();
    }

    private Option? Option(JsonElement element, string at, bool withDose, out Tier? tier)
    {
        var fields = new Fields(element, at, faults);
        tier = fields.Choice<Tier>("tier", required: true);
        var move = Move(fields, "move", required: true);
        var manner = Manner(fields, tier == Tier.Main);
        var parts = ImmutableSortedDictionary<int, PartManner>.Empty;
        if (withDose)
        {
            parts = PartManners(fields, tier == Tier.Main);
        }
        else
        {
            fields.Refuse("there is no dose here to have parts", "parts");
        }

        var note = fields.Text("note", 0, 4000);
        fields.Close("an option");
        return tier is { } t ? new Option(t, move ?? default, manner, parts, note) : null;
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
            if (!int.TryParse(name, NumberStyles.None, CultureInfo.InvariantCulture, out var number) || number < 1 || number.ToString(CultureInfo.InvariantCulture) != name)
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

    private Manner Manner(Fields fields, bool isMain)
    {
        string? Word(string name) => fields.Choice(name, OptionWords.ByField[name]);
        var tempo = ReadTempo(fields);
        if (tempo is not null && tempo.RepSeconds(RepStyle.Full) <= 0)
        {
            fields.Fault("tempo", $"A rep at {tempo} takes no time.", "a tempo that takes more than 0 s a rep");
        }

        var manner = new Manner
        {
            Depth = Word("depth"),
            Support = Word("support"),
            Base = Word("base"),
            Toes = Word("toes"),
            Step = Word("step"),
            Trunk = Word("trunk"),
            Arms = Word("arms"),
            Surface = Word("surface"),
            HeightCm = fields.Whole("heightCm", 0, 120),
            Impact = Word("impact"),
            Band = Word("band"),
            Grip = Word("grip"),
            Tempo = tempo,
            Load = Load(fields),
        };
        if (isMain)
        {
            fields.Refuse("the main option is done as written; scale the others", "scale");
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

        var load = new Fields(value, fields.PointerTo("load"), faults);
        var read = new Load(
            load.Choice("implement", OptionWords.Implements),
            load.Whole("count", 1, 2),
            load.Decimal("kg", 0.25m, 300) is { } kg ? new Kilograms(kg) : null,
            load.Choice("position", OptionWords.Positions),
            load.Choice("side", OptionWords.LoadSides));
        load.Close("a load");
        return read;
    }
}
