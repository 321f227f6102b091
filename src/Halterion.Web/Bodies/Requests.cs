using System.Collections.Immutable;
using System.Text.Json;
using Halterion.Core;
using Halterion.Core.Checks;
using Halterion.Core.Logbook;
using Halterion.Core.People;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Sessions;
using Halterion.Core.Timing.Fitting;

namespace Halterion.Web.Bodies;

/// <summary>A class to be saved, whether it has faults or not.</summary>
public sealed record SaveClass(JsonElement Plan) : IRead<SaveClass>
{
    public static SaveClass? Read(Fields body, Faults faults) => body.Json("plan", faults) is { } plan ? new SaveClass(plan) : null;
}

/// <summary>Starts a class: from a brief, or as a copy of another with a brief of its own. It comes with its first session.</summary>
/// <param name="Plan">A class to begin with, such as a draft.</param>
public sealed record NewClass(
    string Title, int SlotMinutes, Aim Aim, Booking Booking, Guid? CopyOf = null, JsonElement? Plan = null) : IRead<NewClass>
{
    public static NewClass? Read(Fields body, Faults faults)
    {
        var title = body.Text("title", 1, 120, required: true);
        var slot = body.Whole("slotMinutes", 5, 180, required: true);
        var aim = body.Choice<Aim>("aim", required: true);
        var booking = BookingReader.Read(body, faults);
        var copyOf = body.Id("copyOf");
        var plan = body.Has("plan") ? body.Json("plan", faults) : null;
        return title is not null && slot is { } minutes && aim is { } kind && booking is not null
            ? new NewClass(title.Trim(), minutes, kind, booking, copyOf, plan)
            : null;
    }
}

/// <summary>When and for whom a class is held.</summary>
public sealed record SaveSession(Booking Booking) : IRead<SaveSession>
{
    public static SaveSession? Read(Fields body, Faults faults) =>
        BookingReader.Read(body, faults) is { } booking ? new SaveSession(booking) : null;
}

/// <summary>Asks for one repair of one finding.</summary>
/// <param name="Class">The class file that the finding was made for.</param>
/// <param name="Finding">The finding's key: its code, @, and its place.</param>
/// <param name="Repair">Which of its repairs, from 0.</param>
public sealed record RepairRequest(JsonElement Class, string Finding, int Repair) : IRead<RepairRequest>
{
    public static RepairRequest? Read(Fields body, Faults faults)
    {
        var plan = body.Json("class", faults);
        var finding = body.Text("finding", 1, 200, required: true);
        var repair = body.Whole("repair", 0, 100, required: true);
        return plan is { } file && finding is not null && repair is { } index ? new RepairRequest(file, finding, index) : null;
    }
}

/// <summary>Asks for ways to bring a class to its slot.</summary>
public sealed record FitRequest(JsonElement Class, FitTerms Terms) : IRead<FitRequest>
{
    public static FitRequest? Read(Fields body, Faults faults)
    {
        var plan = body.Json("class", faults);
        var terms = body.Object("terms", required: true) is { } fields ? SettingReaders.Terms(fields) : null;
        return plan is { } file && terms is not null ? new FitRequest(file, terms) : null;
    }
}

/// <summary>Asks for the ways in which a class that runs late can still end on time.</summary>
/// <param name="Position">Whole seconds along the planned timeline.</param>
/// <param name="RemainingSeconds">Until it is to end; negative: it should have ended.</param>
public sealed record RefitRequest(JsonElement Plan, int Position, int RemainingSeconds, FitTerms Terms) : IRead<RefitRequest>
{
    private const int Day = 86_400;

    public static RefitRequest? Read(Fields body, Faults faults)
    {
        var plan = body.Json("plan", faults);
        var position = body.Whole("position", 0, Day, required: true);
        var remaining = body.Whole("remainingSeconds", -Day, Day, required: true);
        var terms = body.Object("terms") is { } fields ? SettingReaders.Terms(fields) : new FitTerms();
        return plan is { } file && position is { } at && remaining is { } left ? new RefitRequest(file, at, left, terms) : null;
    }
}

/// <summary>Asks what is said while a class is led.</summary>
/// <param name="Silent">Kinds that are not said; null: as the settings have it; empty: all are said.</param>
public sealed record CallsRequest(JsonElement Plan, ImmutableArray<CallKind>? Silent = null) : IRead<CallsRequest>
{
    public static CallsRequest? Read(Fields body, Faults faults)
    {
        ImmutableArray<CallKind>? silent = body.Take("silent") is { ValueKind: not JsonValueKind.Null }
            ? body.WordList<CallKind>("silent", Enum.GetValues<CallKind>().Length) : null;
        return body.Json("plan", faults) is { } plan ? new CallsRequest(plan, silent) : null;
    }
}

/// <summary>A stand-in is to be on, or off.</summary>
public sealed record SwitchedOn(bool On) : IRead<SwitchedOn>
{
    public static SwitchedOn? Read(Fields body, Faults faults) =>
        (body.Flag("on") ?? body.Missing<bool>("on", "true or false")) is { } on ? new SwitchedOn(on) : null;
}

/// <summary>A dose typed in its short form, for one station of a class.</summary>
/// <param name="Class">The class file as it is; the station and its block have ids in it.</param>
/// <param name="Station">The station's id.</param>
public sealed record TypedDoseRequest(string Text, JsonElement Class, string Station) : IRead<TypedDoseRequest>
{
    public static TypedDoseRequest? Read(Fields body, Faults faults)
    {
        var text = body.Text("text", 0, 4000, required: true);
        var of = body.Json("class", faults);
        var station = body.Text("station", 1, 40, required: true);
        return text is not null && of is { } file && station is not null ? new TypedDoseRequest(text, file, station) : null;
    }
}

/// <summary>Another number of rounds for a block of a class.</summary>
/// <param name="Block">The block's id.</param>
public sealed record RoundsRequest(JsonElement Class, string Block, int Rounds) : IRead<RoundsRequest>
{
    public static RoundsRequest? Read(Fields body, Faults faults)
    {
        var of = body.Json("class", faults);
        var block = body.Text("block", 1, 40, required: true);
        var rounds = body.Whole("rounds", 1, 20, required: true);
        return of is { } file && block is not null && rounds is { } many ? new RoundsRequest(file, block, many) : null;
    }
}

/// <summary>A station with its block, beside whose main option others are to be proposed.</summary>
/// <param name="Moves">The moves that the class carries.</param>
/// <param name="Session">Whose stock is used; left out: weights as they are made.</param>
public sealed record ProposalsRequest(JsonElement Block, string Station, JsonElement? Moves, Guid? Session) : IRead<ProposalsRequest>
{
    public static ProposalsRequest? Read(Fields body, Faults faults)
    {
        var of = body.Json("block", faults);
        var station = body.Text("station", 1, 40, required: true);
        var moves = body.Take("moves");
        var session = body.Id("session");
        return of is { } block && station is not null ? new ProposalsRequest(block, station, moves, session) : null;
    }
}

/// <summary>A list of moves as people write it, to be read into stations.</summary>
/// <param name="RoundGivesSide">The block that they go into gives the side by round.</param>
/// <param name="Like">The dose of the stations there, in the short form.</param>
public sealed record PasteRequest(string Text, bool RoundGivesSide, string? Like) : IRead<PasteRequest>
{
    public static PasteRequest? Read(Fields body, Faults faults)
    {
        var text = body.Text("text", 1, 20_000, required: true);
        return text is null ? null : new PasteRequest(text, body.Flag("roundGivesSide") ?? false, body.Text("like", 0, 4000));
    }
}

/// <param name="Expected">How many stored commands the sender knows of, besides these.</param>
public sealed record SendCommands(int Expected, ImmutableArray<LeadCommand> Commands) : IRead<SendCommands>
{
    private const int Most = 1000;
    private const int MostScenes = 20_000;
    private const int MostShift = 86_400_000;
    private const int NoteLength = 500;

    public static SendCommands? Read(Fields body, Faults faults)
    {
        var expected = body.Whole("expected", 0, 1_000_000, required: true);
        var commands = body.List("commands", 0, Most, "a command", Command, required: true);
        return expected is { } known ? new SendCommands(known, commands) : null;
    }

    private static LeadCommand? Command(Fields fields)
    {
        var id = fields.Id("id", required: true);
        var kind = fields.Choice<LeadCommandKind>("kind", required: true);
        var device = fields.Text("device", 1, 60);
        var payload = fields.Object("payload") is { } carried ? kind is { } of ? Payload(of, carried) : null : null;
        if (kind is LeadCommandKind.Adjust or LeadCommandKind.Jump or LeadCommandKind.Note && !fields.Has("payload"))
        {
            fields.Missing<int>("payload", "what this command carries");
        }

        // Milliseconds since 1970 as a whole number: more than the seconds of a plan can be.
        var at = fields.Take("at") is { } value ? Moment(fields, value) : fields.Missing<long>("at", "milliseconds since 1970");
        return id is { } command && kind is { } what && at is { } moment ? new LeadCommand(command, what, moment, device, payload) : null;
    }

    /// <summary>What a command of this kind may carry, and nothing else.</summary>
    private static LeadPayload Payload(LeadCommandKind kind, Fields fields)
    {
        var payload = kind switch
        {
            LeadCommandKind.Adjust => new LeadPayload(
                Shifts: fields.List("shifts", 0, MostScenes, "a shift", Shift, required: true), Text: fields.Text("text", 0, NoteLength)),
            LeadCommandKind.Jump => new LeadPayload(Scene: fields.Whole("scene", 0, MostScenes, required: true)),
            LeadCommandKind.Note => new LeadPayload(
                Scene: fields.Whole("scene", 0, MostScenes),
                Text: fields.Text("text", 0, NoteLength),
                Person: fields.Id("person")?.ToString(),
                Tap: fields.Choice<QuickTap>("tap")),
            _ => new LeadPayload(),
        };
        fields.Close("this payload");
        return payload;
    }

    private static SceneShift? Shift(Fields fields)
    {
        var scene = fields.Whole("scene", 0, MostScenes, required: true);
        var by = fields.Whole("by", -MostShift, MostShift, required: true);
        return scene is { } at && by is { } shift ? new SceneShift(at, shift) : null;
    }

    private static long? Moment(Fields fields, JsonElement value)
    {
        if (value.ValueKind == JsonValueKind.Number && value.TryGetInt64(out var at) && at is > 0 and < 8_640_000_000_000)
        {
            return at;
        }

        fields.Fault("at", $"This is {Fields.Kind(value)}.", "milliseconds since 1970, a whole number");
        return null;
    }
}

/// <summary>A person as typed in; their id is the server's to give, so that one in the body is passed over.</summary>
public sealed record PersonBody(Person Person) : IRead<PersonBody>
{
    public static PersonBody? Read(Fields body, Faults faults)
    {
        body.Take("id");
        body.Take("revision");
        return PersonReader.ReadDetails(body, faults, default) is { } person ? new PersonBody(person) : null;
    }
}

/// <summary>People who belong together, by name.</summary>
/// <param name="Together">They stay in one group of a rotation.</param>
public sealed record CircleDetails(string Name, bool Together, ImmutableArray<PersonId> People) : IRead<CircleDetails>
{
    public static CircleDetails? Read(Fields body, Faults faults)
    {
        var name = body.Text("name", 1, 120, required: true);
        var together = body.Flag("together") ?? false;
        var people = BookingReader.People(body, faults, "people");
        return name is null ? null : new CircleDetails(name.Trim(), together, [.. people]);
    }
}

/// <summary>A block to be kept to begin from.</summary>
public sealed record NewTemplate(string Name, JsonElement Block) : IRead<NewTemplate>
{
    public static NewTemplate? Read(Fields body, Faults faults)
    {
        var name = body.Text("name", 1, 120, required: true);
        return body.Json("block", faults) is { } block && name is not null ? new NewTemplate(name.Trim(), block) : null;
    }
}

/// <summary>The user's own moves, as they stand in a class file.</summary>
public sealed record OwnMoveList(ImmutableArray<JsonElement> Moves) : IRead<OwnMoveList>
{
    public static OwnMoveList? Read(Fields body, Faults faults) => new([.. body.Items("moves", 1, 100, "moves", required: true)]);
}
