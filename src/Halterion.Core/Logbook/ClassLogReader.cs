using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Logbook;

/// <summary>Reads a log as data. It never throws on bad input: it notes every fault.</summary>
public static class ClassLogReader
{
    private const int NoteLength = 2000;
    private const int MostRows = 1000;
    private const int MostUses = 480;
    private const int MostSets = 60;
    private const int MostAmount = 3600;
    private const int MostMinutes = 1440;

    /// <summary>Reads a log. What it returns counts only where no fault was noted.</summary>
    public static ClassLog? Read(Fields log)
    {
        var rows = log.List("rows", 0, MostRows, "a row", Row, required: true);
        var note = log.Text("note", 0, NoteLength, required: true);
        var read = note is null ? null : new ClassLog(rows, note)
        {
            StartedAt = Moment(log, "startedAt"),
            EndedAt = Moment(log, "endedAt"),
            Minutes = log.Whole("minutes", 0, MostMinutes),
            Hardest = Place(log, "hardest"),
            LeastLiked = Place(log, "leastLiked"),
            CarriedOver = log.Text("carriedOver", 0, NoteLength) ?? "",
        };
        log.Close("a log");
        return read;
    }

    private static LogRow? Row(Fields fields)
    {
        var person = fields.Text("personId", 1, 60, required: true);
        if (person is not null && !Guid.TryParseExact(person, "D", out _))
        {
            fields.Fault("personId", $"“{person}” is not a valid id.", "an id as the server gave it");
        }

        var came = fields.Flag("came") ?? fields.Missing<bool>("came", "true or false");
        var note = fields.Text("note", 0, NoteLength, required: true);
        var uses = fields.List("uses", 0, MostUses, "a station's use", Use, required: true);
        var (effort, pain) = (Effort(fields), PainOf(fields));
        var felt = fields.Object("felt") is { } told ? FeltOf(told) : null;
        var wishes = fields.Text("wishes", 0, NoteLength) ?? "";
        return person is not null && came is { } there && note is not null
            ? new LogRow(new PersonId(person), there, uses, note) { Effort = effort, Pain = pain, Felt = felt, Wishes = wishes }
            : null;
    }

    private static StationUse? Use(Fields fields)
    {
        var station = Place(fields, "station", required: true);
        var use = new StationUse(station ?? default, Place(fields, "option"))
        {
            Sets = fields.List("sets", 0, MostSets, "a set", Set),
            ChangedTo = Place(fields, "changedTo"),
            Pain = PainOf(fields),
            Effort = Effort(fields),
            Clean = fields.Flag("clean"),
            Note = fields.Text("note", 0, NoteLength) ?? "",
        };
        return station is null ? null : use;
    }

    private static DoneSet? Set(Fields fields)
    {
        var (reps, seconds) = (fields.Whole("reps", 0, MostAmount), fields.Whole("seconds", 0, MostAmount));
        if (fields.Has("reps") == fields.Has("seconds"))
        {
            fields.FaultAt("", "A set has reps or seconds.", "one of them");
        }

        var set = new DoneSet(reps, seconds, fields.Decimal("kg", 0, 600), MovingOnReader.Side(fields));
        return reps is null && seconds is null ? null : set;
    }

    private static decimal? Effort(Fields fields) => fields.Decimal("effort", 0, 10);

    private static Pain? PainOf(Fields fields) => fields.Object("pain") is { } pain ? MovingOnReader.PainOf(pain) : null;

    private static DayAfter? FeltOf(Fields fields)
    {
        var how = fields.Choice<Feeling>("how", required: true);
        var where = fields.Text("where", 0, 200) ?? "";
        fields.Close("the day after");
        return how is { } told ? new DayAfter(told, where) : null;
    }

    private static PlaceId? Place(Fields fields, string name, bool required = false) =>
        fields.Text(name, 1, 40, required) is { } id ? new PlaceId(id) : null;

    private static long? Moment(Fields fields, string name)
    {
        if (fields.Take(name) is not { } value)
        {
            return null;
        }

        if (value.ValueKind == System.Text.Json.JsonValueKind.Number && value.TryGetInt64(out var at) && at is > 0 and < 8_640_000_000_000)
        {
            return at;
        }

        fields.Fault(name, $"This is {Fields.Kind(value)}.", "milliseconds since 1970, a whole number");
        return null;
    }
}
