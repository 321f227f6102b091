using System.Collections.Immutable;
using System.Text.Json;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Room;

namespace Halterion.Core.Logbook;

/// <summary>Reads a case of moving on as data. It never throws on bad input: it notes every fault.</summary>
public static class MovingOnReader
{
    private const int MostHistory = 1000;
    private const int MostSets = 60;
    private const int MostAmount = 3600;

    /// <summary>Reads what is asked. What it returns counts only where no fault was noted.</summary>
    public static MovingOnCase? Read(Fields body, Faults faults, MoveLibrary moves)
    {
        var option = OptionOf(body, "option", faults, moves);
        var target = body.Object("target", required: true) is { } asked ? TargetOf(asked) : null;
        var today = body.Day("today") ?? body.Missing<DateOnly>("today", "a day such as 2026-11-30");
        var history = body.List("history", 0, MostHistory, "a class of the history", f => Past(f, faults, moves), required: true);
        InOrder(history, today, faults, body);
        var level = Level(body, faults, option, moves);
        ImmutableArray<StockLine>? stock = body.Has("stock")
            ? body.List("stock", 0, KitReader.MostLines, "a line of the stock", KitReader.Line) : null;
        var ready = body.Choices<Tick>("ready", 10);
        var limits = body.List("limits", 0, 30, "a limit", PersonReader.LimitOf);
        return option is not null && target is not null && today is { } day
            ? new MovingOnCase(history, option, target, day, level, stock, ready, limits)
            : null;
    }

    /// <summary>Reads one option as it stands in a class.</summary>
    public static Option? OptionOf(Fields fields, string name, Faults faults, MoveLibrary moves) =>
        fields.Object(name, required: true) is { } inner ? ClassReader.ReadOption(inner, moves, faults) : null;

    private static Tier? Level(Fields body, Faults faults, Option? option, MoveLibrary moves)
    {
        if (body.Peek("level") is not { ValueKind: JsonValueKind.Object })
        {
            return body.Choice<Tier>("level");
        }

        // As it is kept of a person: by family.
        var levels = PersonReader.Level(body);
        return option is not null && moves.Find(option.Move) is { } move
            ? new Person(default, "", Level: levels).LevelFor(move.Family) : null;
    }

    private static Target? TargetOf(Fields fields)
    {
        var (reps, seconds) = (fields.Whole("reps", 1, MostAmount), fields.Whole("seconds", 1, MostAmount));
        if (fields.Has("reps") == fields.Has("seconds"))
        {
            fields.FaultAt("", "A target has reps or seconds.", "one of them");
        }

        fields.Close("a target");
        return reps is null && seconds is null ? null : reps is null ? new Target(Seconds: seconds) : new Target(Reps: reps);
    }

    private static PastWork? Past(Fields fields, Faults faults, MoveLibrary moves)
    {
        var date = fields.Day("date") ?? fields.Missing<DateOnly>("date", "a day such as 2026-11-30");
        var option = OptionOf(fields, "option", faults, moves);
        var target = fields.Object("target", required: true) is { } asked ? TargetOf(asked) : null;
        var sets = fields.List("sets", 1, MostSets, "a set", f => SetOf(f, target), required: true);
        var effort = fields.Decimal("effort", 0, 10);
        var pain = fields.Object("pain") is { } told ? PainOf(told) : null;
        var clean = fields.Flag("clean");
        return date is { } day && option is not null && target is not null && !sets.IsEmpty
            ? new PastWork(day, option, target, sets, effort, pain, clean)
            : null;
    }

    private static DoneSet? SetOf(Fields fields, Target? target)
    {
        var (reps, seconds) = (fields.Whole("reps", 0, MostAmount), fields.Whole("seconds", 0, MostAmount));
        if (fields.Has("reps") == fields.Has("seconds"))
        {
            fields.FaultAt("", "A set has reps or seconds.", "one of them");
        }
        else if (target is not null && fields.Has("seconds") != target.IsTime)
        {
            fields.Fault(target.IsTime ? "reps" : "seconds", "The target counts otherwise.", target.IsTime ? "seconds" : "reps");
        }

        var kg = fields.Decimal("kg", 0, 600);
        var side = Side(fields);
        return reps is null && seconds is null ? null : new DoneSet(reps, seconds, kg is 0 ? null : kg, side);
    }

    /// <summary>Left or right; left out, or "none", of both together.</summary>
    internal static BodySide? Side(Fields fields) => fields.Choice("side", ["left", "right", "none"]) switch
    {
        "left" => BodySide.Left,
        "right" => BodySide.Right,
        _ => null,
    };

    /// <summary>Where it hurt, and on which side.</summary>
    internal static Pain PainOf(Fields fields)
    {
        var pain = new Pain(fields.Text("where", 0, 200) ?? "", Side(fields));
        fields.Close("a pain");
        return pain;
    }

    private static void InOrder(ImmutableArray<PastWork> history, DateOnly? today, Faults faults, Fields body)
    {
        for (var i = 0; i < history.Length; i++)
        {
            if (i > 0 && history[i].Date < history[i - 1].Date)
            {
                faults.Add($"{body.PointerTo("history", i)}/date", "This class is before the one above it.", "the oldest first");
            }
            else if (today is { } day && history[i].Date > day)
            {
                faults.Add($"{body.PointerTo("history", i)}/date", "This class is after today.", "a day up to today");
            }
        }
    }
}
