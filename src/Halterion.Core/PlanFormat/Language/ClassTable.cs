using System.Text.Json.Nodes;
using Halterion.Core.Plans;

namespace Halterion.Core.PlanFormat;

/// <summary>The fields of a class.</summary>
internal sealed class ClassTable : Table<ClassPlan>
{
    public const string FormatName = "halterion-class";
    public const int Version = 1;
    public const int MostBlocks = 30;
    public const int MostMoves = 100;
    public const int MostWaivers = 200;

    public ClassTable() : base("a class", "A class. Seconds are whole numbers.")
    {
        Add(new("format", () => Schemas.Words(FormatName), Format, _ => FormatName) { Required = true });
        Add(new("version", VersionSchema, ReadVersion, _ => Version) { Required = true });
        Add("title", new PlainText(1, 120), p => p.Title, (p, v) => p with { Title = v }, Required);
        Add("notes", new PlainText(0, 4000), p => Unless("", p.Notes), (p, v) => p with { Notes = v });
        Add("slotMinutes", new WholeNumber(5, 180), p => p.SlotMinutes, (p, v) => p with { SlotMinutes = v }, Required);
        Add("aim", new OneWord<Aim>(), p => Unless(Aim.Conditioning, p.Aim), (p, v) => p with { Aim = v });
        Add("facing", new OneWord<Facing>(), p => Unless(Facing.Mirror, p.Facing), (p, v) => p with { Facing = v });
        Add("focus", new PlainText(1, 120), p => p.Focus, (p, v) => p with { Focus = v }, about: "The cue of the day.");
        Add("bring", new PlainText(1, 400), p => p.Bring, (p, v) => p with { Bring = v }, about: "What people bring or wear.");
        Add("warmUp", new OneWord<WarmUp>(), p => Unless(WarmUp.InClass, p.WarmUp), (p, v) => p with { WarmUp = v });

        // What the class gives to blocks and stations that say nothing else.
        var usual = ClassDefaults.Usual;
        Add("leadInSeconds", new LengthInSeconds(0, 120), p => Unless(usual.LeadIn, p.Defaults.LeadIn),
            (p, v) => p with { Defaults = p.Defaults with { LeadIn = v } });
        Add("switchSeconds", new LengthInSeconds(0, 60), p => Unless(usual.Switch, p.Defaults.Switch),
            (p, v) => p with { Defaults = p.Defaults with { Switch = v } });
        Add("startSide", new OneWord<Side>(Side.Left, Side.Right), p => Unless(usual.StartSide, p.Defaults.StartSide),
            (p, v) => p with { Defaults = p.Defaults with { StartSide = v } });
        Add("count", new OneWord<Counting>(), p => Unless(usual.Count, p.Defaults.Count),
            (p, v) => p with { Defaults = p.Defaults with { Count = v } });

        // Which library it was written with is not asked: a file that once opened opens for ever.
        Add("library", new PlainText(1, 120), _ => null, (p, _) => p);
        Add(new(
            "moves", () => Schemas.List(Schemas.Of("PlanMove"), 0, MostMoves),
            (context, fields, p, _) => p with { Moves = context.OwnMoves(fields, inClass: true) }, _ => null));
        Add(new(
            "blocks", () => Schemas.List(Schemas.Of("PlanBlock"), 1, MostBlocks),
            (context, fields, p, _) => p with { Blocks = context.Blocks(fields, p.Defaults) },
            p => new ListOfThings(p.Blocks.Select(PlanLanguage.Block.Write)).Json)
        { Required = true, Last = true });
        Add(new(
            "waivers", () => Schemas.List(Schemas.Of("PlanWaiver"), 0, MostWaivers),
            (context, fields, p, _) => p with { Waivers = context.Waivers(fields, p) },
            p => p.Waivers.IsEmpty ? null : new ListOfThings(p.Waivers.Select(PlanLanguage.Waiver.Write)).Json)
        { Last = true });
    }

    private static JsonObject VersionSchema() => new() { ["type"] = "integer", ["enum"] = new JsonArray(Version) };

    private static ClassPlan Format(Context context, Fields fields, ClassPlan plan, Anywhere place)
    {
        if (fields.Text("format", 1, 120, required: true) is { } format && format != FormatName)
        {
            fields.Fault("format", $"This is a “{format}” file.", FormatName);
        }

        return plan;
    }

    private static ClassPlan ReadVersion(Context context, Fields fields, ClassPlan plan, Anywhere place)
    {
        fields.Whole("version", Version, Version, required: true);
        return plan;
    }
}

/// <summary>A finding seen and left, with the reason. Its place is as written, until all places are known.</summary>
internal sealed class WaiverTable : Table<Waiver>
{
    public WaiverTable() : base("a waiver", "A finding seen and left, with the reason.")
    {
        Add("code", new PlainText(1, 120), w => w.Code, (w, v) => w with { Code = v }, Required);
        Add("place", new PlainText(0, 4000), w => w.Place.Value, (w, v) => w with { Place = new PlaceId(v) }, Required,
            about: "The id of the block, station or option, or class.");
        Add("reason", new PlainText(1, 400), w => w.Reason, (w, v) => w with { Reason = v }, Required);
    }
}
