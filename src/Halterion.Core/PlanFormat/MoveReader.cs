using System.Collections.Immutable;
using System.Text.Json;
using System.Text.RegularExpressions;
using Halterion.Core.Body;
using Halterion.Core.Moves;

namespace Halterion.Core.PlanFormat;

internal sealed partial class Context
{
    private const int MostMoves = 100;

    public ImmutableArray<Move> ReadOwnMoves(JsonElement root) => OwnMoves(new Fields(root, "", faults), inClass: false);

    /// <summary>The user's own moves that travel in the class; from here on they are found beside those of the library.</summary>
    /// <param name="inClass">A class's own moves win inside it: a file that once opened opens for ever, whatever ids the library
    /// takes.</param>
    private ImmutableArray<Move> OwnMoves(Fields fields, bool inClass)
    {
        var items = fields.Items("moves", 0, MostMoves, "moves");
        var own = ImmutableArray.CreateBuilder<Move>();
        for (var i = 0; i < items.Length; i++)
        {
            if (OwnMove(items[i], $"/moves/{i}", own, inClass) is { } move)
            {
                own.Add(move);
            }
        }

        moves = moves.Over(own.ToImmutable());
        return own.ToImmutable();
    }

    private Move? OwnMove(JsonElement element, string at, IEnumerable<Move> before, bool inClass)
    {
        var fields = new Fields(element, at, faults);
        var id = fields.Text("id", 1, 120, required: true);
        if (id is not null && !IdShape().IsMatch(id))
        {
            fields.Fault("id", $"“{id}” is no id.", "small letters, digits and hyphens, such as my-squat");
            id = null;
        }
        else if (id is not null && (!inClass && moves.IsShipped(new MoveId(id)) || before.Any(m => m.Id.Value == id)))
        {
            fields.Fault("id", $"There is a move “{id}” already.", "an id of its own");
            id = null;
        }

        var name = fields.Text("name", 1, 120, required: true);
        var family = fields.Choice<Family>("family", required: true);
        var like = Like(fields);
        var move = new Move(
            new MoveId(id ?? ""),
            name ?? "",
            Texts(fields, "aliases"),
            family ?? Family.Squat,
            fields.Choice<Plane>("plane") ?? Plane.Sagittal,
            fields.Choice<Position>("position") ?? Position.Standing,
            fields.Choice<Sided>("sided") ?? Sided.TwoSided,
            fields.Text("rep", 0, 4000) ?? "",
            UsualDose(fields),
            Texts(fields, "kit"),
            fields.Text("setUp", 0, 4000) ?? "",
            fields.Text("path", 0, 4000) ?? "",
            fields.Text("end", 0, 4000) ?? "",
            fields.Text("breath", 0, 4000) ?? "",
            FormFaults(fields),
            fields.Text("felt", 0, 4000) ?? "",
            fields.Text("cautions", 0, 4000) ?? "",
            fields.Text("sideMeans", 1, 120),
            OwnTempo(fields),
            fields.Text("muscles", 0, 4000) ?? "",
            fields.Text("easier", 0, 4000) ?? "",
            fields.Text("harder", 0, 4000) ?? "",
            fields.Text("readiness", 1, 4000),
            fields.Text("getIn", 1, 4000),
            fields.Text("kitSafety", 1, 4000),
            like?.Id,
            Stated(fields),
            like?.Asks,
            Limits: OwnLimits(fields) is { } limits ? limits : like?.Limits,
            Ready: like?.Ready,
            Quick: like?.Quick ?? false,
            Usual: like?.Usual,
            Ballistic: like?.Ballistic ?? false,
            Cues: fields.Has("cues") ? Texts(fields, "cues") : null,
            SideSay: fields.Text("sideSay", 1, 120),
            Picture: Picture(fields))
        {
            Poses = like?.Poses,
        };
        fields.Close("a move");
        return id is null || name is null || family is null ? null : move;
    }

    /// <summary>The poses, and with them the demand, of the move that an own one looks like.</summary>
    private Move? Like(Fields fields)
    {
        if (fields.Text("like", 1, 120) is not { } like)
        {
            return null;
        }

        if (moves.Find(new MoveId(like)) is { } move)
        {
            return move;
        }

        fields.Fault("like", $"“{like}” is not a move of the library.", "the id of a move that it looks like, such as squat");
        return null;
    }

    private StatedDemand? Stated(Fields fields)
    {
        if (fields.Take("demand") is not { } value)
        {
            return null;
        }

        var demand = new Fields(value, fields.PointerTo("demand"), faults);
        int? Of(string name) => demand.Whole(name, 0, 5);
        var stated = new StatedDemand(
            Of("knee"), Of("hip"), Of("back"), Of("balance"), Of("impact"), Of("mobility"), Of("skill"), Of("grip"));
        demand.Close("a demand");
        return stated;
    }

    private Tempo? OwnTempo(Fields fields)
    {
        var tempo = ReadTempo(fields);
        if (tempo is not null && tempo.RepSeconds(RepStyle.Full) <= 0)
        {
            fields.Fault("tempo", $"A rep at {tempo} takes no time.", "a tempo that takes more than 0 s a rep");
            return null;
        }

        return tempo;
    }

    private UsualDose UsualDose(Fields fields)
    {
        if (fields.Take("dose") is not { } value)
        {
            return new UsualDose("reps", 10);
        }

        var dose = new Fields(value, fields.PointerTo("dose"), faults);
        var kind = dose.Choice("kind", ["time", "reps", "hold", "pulses"]);
        var amount = dose.Whole("amount", 1, 3600, required: true);
        dose.Close("a usual dose");
        return new UsualDose(kind ?? "reps", amount ?? 10);
    }

    private ImmutableArray<FormFault> FormFaults(Fields fields)
    {
        var items = fields.Items("faults", 0, 20, "faults");
        var read = ImmutableArray.CreateBuilder<FormFault>();
        for (var i = 0; i < items.Length; i++)
        {
            var fault = new Fields(items[i], $"{fields.PointerTo("faults")}/{i}", faults);
            read.Add(new FormFault(fault.Text("seen", 1, 4000, required: true) ?? "", fault.Text("fix", 1, 4000, required: true) ?? "",
                fault.Text("say", 1, 120)));
            fault.Close("a fault of form");
        }

        return read.ToImmutable();
    }

    private string? Picture(Fields fields)
    {
        if (fields.Text("picture", 1, 1_000_000) is not { } address)
        {
            return null;
        }

        if (OwnPicture.Clean(address) is { } clean)
        {
            return clean;
        }

        fields.Fault("picture", "This picture cannot be used.", $"a JPEG or PNG of at most {OwnPicture.MostBytes / 1000} kB, as a "
            + $"data: address");
        return null;
    }

    /// <summary>Whom a user says that it is not for; null where nothing is said. Nothing lifts what a user says.</summary>
    private ImmutableArray<MoveLimit>? OwnLimits(Fields fields)
    {
        if (!fields.Has("limits"))
        {
            return null;
        }

        var items = fields.Items("limits", 0, 20, "limits");
        var read = ImmutableArray.CreateBuilder<MoveLimit>();
        for (var i = 0; i < items.Length; i++)
        {
            var one = new Fields(items[i], $"{fields.PointerTo("limits")}/{i}", faults);
            var limit = one.Choice<Limit>("limit", required: true);
            var when = one.Choice<LimitWhen>("when");
            var why = one.Text("why", 1, 120);
            one.Close("a limit of a move");
            if (limit is { } known)
            {
                read.Add(new MoveLimit(known, when ?? LimitWhen.Any, why ?? "your own note on this move"));
            }
        }

        return read.ToImmutable();
    }

    private ImmutableArray<string> Texts(Fields fields, string name)
    {
        var items = fields.Items(name, 0, 50, "texts");
        var texts = ImmutableArray.CreateBuilder<string>();
        for (var i = 0; i < items.Length; i++)
        {
            if (items[i].ValueKind == JsonValueKind.String && JsonText.Of(items[i]) is { Length: > 0 and <= 120 } text)
            {
                texts.Add(text);
            }
            else
            {
                faults.Add(fields.PointerTo(name, i), $"This is {Fields.Kind(items[i])}.", "a text of 1–120 characters");
            }
        }

        return texts.ToImmutable();
    }

    [GeneratedRegex(@"\A[a-z0-9]+(-[a-z0-9]+)*\z")]
    private static partial Regex IdShape();
}
