using System.Collections.Immutable;
using System.Diagnostics.CodeAnalysis;
using System.Text.Json;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Halterion.Core.Moves;
using Halterion.Core.Plans;

namespace Halterion.Core.PlanFormat;

/// <summary>The fields of a user's own move.</summary>
internal sealed partial class MoveTable : Table<Move, MovePlace>
{
    private const int MostText = 4000;

    /// <summary>Of a picture as text: what a picture of the greatest size comes to as base64, and the address before it.</summary>
    private const int MostPicture = 125_000;

    public MoveTable() : base("a move", "A move of the user's own that travels in the class.")
    {
        Add(new("id", IdSchema, (_, fields, m, place) => m with { Id = place.Id(fields) }, m => m.Id.Value) { Required = true });
        Add("name", new PlainText(1, 120), m => m.Name, (m, v) => m with { Name = v }, Required);
        Add("family", new OneWord<Family>(), m => m.Family, (m, v) => m with { Family = v }, Required);

        // Before all that it may say otherwise.
        Add("like", new LikeMove(), m => m.Like is null ? null : m, (m, like) => m with
        {
            Like = like.Id,
            Asks = like.Asks,
            Limits = like.Limits,
            Ready = like.Ready,
            Quick = like.Quick,
            Usual = like.Usual,
            Ballistic = like.Ballistic,
            Poses = like.Poses,
        }, about: "The move that it looks like: its figure, and with it the demand, are taken from there.");
        Add("aliases", Texts(), m => m.Aliases.IsEmpty ? null : m.Aliases, (m, v) => m with { Aliases = v });
        Add("plane", new OneWord<Plane>(), m => m.Plane, (m, v) => m with { Plane = v });
        Add("position", new OneWord<Position>(), m => m.Position, (m, v) => m with { Position = v });
        Add("sided", new OneWord<Sided>(), m => m.Sided, (m, v) => m with { Sided = v });
        Text("rep", m => m.Rep, (m, v) => m with { Rep = v });
        Add("dose", new Thing<UsualDose>(PlanLanguage.UsualDose, BlankDose), m => m.Dose, (m, v) => m with { Dose = v });
        Add("kit", Texts(), m => m.Kit.IsEmpty ? null : m.Kit, (m, v) => m with { Kit = v });
        Text("setUp", m => m.SetUp, (m, v) => m with { SetUp = v });
        Text("path", m => m.Path, (m, v) => m with { Path = v });
        Text("end", m => m.End, (m, v) => m with { End = v });
        Text("breath", m => m.Breath, (m, v) => m with { Breath = v });
        Add("faults", new ListOf<FormFault>(new Thing<FormFault>(PlanLanguage.FormFault, new("", "")), 0, 20, "faults"),
            m => m.Faults.IsEmpty ? null : m.Faults, (m, v) => m with { Faults = v });
        Text("felt", m => m.Felt, (m, v) => m with { Felt = v });
        Text("cautions", m => m.Cautions, (m, v) => m with { Cautions = v });
        Add("sideMeans", new PlainText(1, 120), m => m.SideMeans, (m, v) => m with { SideMeans = v });
        Add("tempo", new TempoWords(moves: true), m => m.Tempo, (m, v) => m with { Tempo = v });
        Text("muscles", m => m.Muscles, (m, v) => m with { Muscles = v });
        Text("easier", m => m.Easier, (m, v) => m with { Easier = v });
        Text("harder", m => m.Harder, (m, v) => m with { Harder = v });
        Add("readiness", new PlainText(1, MostText), m => m.Readiness, (m, v) => m with { Readiness = v });
        Add("getIn", new PlainText(1, MostText), m => m.GetIn, (m, v) => m with { GetIn = v });
        Add("kitSafety", new PlainText(1, MostText), m => m.KitSafety, (m, v) => m with { KitSafety = v });
        Add("demand", new Thing<StatedDemand>(PlanLanguage.StatedDemand, new(null, null, null, null, null, null, null, null)),
            m => m.Demand, (m, v) => m with { Demand = v },
            about: "What it asks, 0 (nothing) to 5; what is not said is as the move that it is like, or 0.");
        Add("cues", Texts(), m => m.Cues, (m, v) => m with { Cues = v });
        Add("picture", new PictureAddress(), m => m.Picture, (m, v) => m with { Picture = v },
            about: "A photo or drawing, without what a camera writes beside it.");
        Add("sideSay", new PlainText(1, 120), m => m.SideSay, (m, v) => m with { SideSay = v });

        // Nothing lifts what a user says.
        Add("limits",
            new ListOf<MoveLimit>(
                new Thing<MoveLimit>(PlanLanguage.MoveLimit, new(default, LimitWhen.Any, "your own note on this move")), 0, 20, "limits"),
            m => m.Limits, (m, v) => m with { Limits = v }, about: "Whom it is not for.");
    }

    public static readonly UsualDose BlankDose = new("reps", 10);

    private void Text(string name, Func<Move, string> get, Func<Move, string, Move> set) =>
        Add(name, new PlainText(0, MostText), m => Unless("", get(m)), set);

    private static ListOf<string> Texts() => new(new AnyText(), 0, 50, "texts");

    public static bool IsId(string id) => IdShape().IsMatch(id);

    private static JsonObject IdSchema() => new()
    {
        ["type"] = "string",
        ["maxLength"] = 120,
        ["pattern"] = "^[a-z0-9]+(-[a-z0-9]+)*$",
    };

    [GeneratedRegex(@"\A[a-z0-9]+(-[a-z0-9]+)*\z")]
    private static partial Regex IdShape();

    /// <summary>A text of 1–120 characters that may be anything: older files hold such.</summary>
    private sealed class AnyText : Holds<string>
    {
        public override string Right => Fields.TextWords(1, 120);

        public override bool TryRead(
            Context context, Fields fields, JsonElement value, string name, int? index, [MaybeNullWhen(false)] out string read)
        {
            read = value.ValueKind == JsonValueKind.String && JsonText.Of(value) is { Length: > 0 and <= 120 } text ? text : null;
            if (read is null)
            {
                fields.Wrong(value, name, index, Right);
            }

            return read is not null;
        }

        public override JsonNode Write(string value) => value;

        public override JsonObject Schema() => new() { ["type"] = "string", ["minLength"] = 1, ["maxLength"] = 120 };
    }

    private sealed class LikeMove : Holds<Move>
    {
        private static readonly PlainText Id = new(1, 120);

        public override string Right => Id.Right;

        public override bool TryRead(
            Context context, Fields fields, JsonElement value, string name, int? index, [MaybeNullWhen(false)] out Move read)
        {
            read = null;
            if (!Id.TryRead(context, fields, value, name, index, out var like))
            {
                return false;
            }

            read = context.Find(new MoveId(like));
            if (read is null)
            {
                fields.Fault(name, $"No move has the id “{like}”.", "the id of a move that it looks like, such as squat");
            }

            return read is not null;
        }

        public override JsonNode Write(Move value) => value.Like!.Value.Value;

        public override JsonObject Schema() => Id.Schema();
    }

    private sealed class PictureAddress : Holds<string>
    {
        private static readonly PlainText Any = new(1, 1_000_000);

        public override string Right => $"a JPEG or PNG of at most {OwnPicture.MostBytes / 1000} kB, as a data: address";

        public override bool TryRead(
            Context context, Fields fields, JsonElement value, string name, int? index, [MaybeNullWhen(false)] out string read)
        {
            read = null;
            if (!Any.TryRead(context, fields, value, name, index, out var address))
            {
                return false;
            }

            read = OwnPicture.Clean(address);
            if (read is null)
            {
                fields.Fault(name, "This picture cannot be used.", Right);
            }

            return read is not null;
        }

        public override JsonNode Write(string value) => value;

        public override JsonObject Schema() => new()
        {
            ["type"] = "string",
            ["minLength"] = 1,
            ["maxLength"] = MostPicture,
            ["pattern"] = "^data:image/(jpeg|png);base64,",
        };
    }
}

internal sealed class UsualDoseTable : Table<UsualDose>
{
    public UsualDoseTable() : base("a usual dose", null)
    {
        Add("kind", new OneWord<PartKind>(PartKind.Time, PartKind.Reps, PartKind.Hold, PartKind.Pulses),
            d => WordsOf<PartKind>.All[d.Kind], (d, v) => d with { Kind = WordsOf<PartKind>.Of(v) });
        Add("amount", new WholeNumber(1, AmountOrRange.Most), d => d.Amount, (d, v) => d with { Amount = v }, Required);
    }
}

internal sealed class StatedDemandTable : Table<StatedDemand>
{
    public StatedDemandTable() : base("a demand", null)
    {
        Add("knee", Scale(), d => d.Knee, (d, v) => d with { Knee = v });
        Add("hip", Scale(), d => d.Hip, (d, v) => d with { Hip = v });
        Add("back", Scale(), d => d.Back, (d, v) => d with { Back = v });
        Add("balance", Scale(), d => d.Balance, (d, v) => d with { Balance = v });
        Add("impact", Scale(), d => d.Impact, (d, v) => d with { Impact = v });
        Add("mobility", Scale(), d => d.Mobility, (d, v) => d with { Mobility = v });
        Add("skill", Scale(), d => d.Skill, (d, v) => d with { Skill = v });
        Add("grip", Scale(), d => d.Grip, (d, v) => d with { Grip = v });
    }

    private static WholeNumber Scale() => new(0, 5);
}

internal sealed class FormFaultTable : Table<FormFault>
{
    public FormFaultTable() : base("a fault of form", null)
    {
        Add("seen", new PlainText(1, 4000), f => f.Seen, (f, v) => f with { Seen = v }, Required);
        Add("fix", new PlainText(1, 4000), f => f.Fix, (f, v) => f with { Fix = v }, Required);
        Add("say", new PlainText(1, 120), f => f.Say, (f, v) => f with { Say = v });
    }
}

internal sealed class MoveLimitTable : Table<MoveLimit>
{
    public MoveLimitTable() : base("a limit of a move", null)
    {
        Add("limit", new OneWord<Limit>(), l => l.Limit, (l, v) => l with { Limit = v }, Required);
        Add("when", new OneWord<LimitWhen>(), l => l.When, (l, v) => l with { When = v });
        Add("why", new PlainText(1, 120), l => l.Why, (l, v) => l with { Why = v });
    }
}
