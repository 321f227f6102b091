using System.Collections.Immutable;
using System.Text.Json.Nodes;

namespace Halterion.Core.Moves;

/// <summary>One option as a coach gives it beside a move.</summary>
/// <param name="With">Option fields of the plan language.</param>
/// <param name="Differs">What is otherwise, in words that go after the move's name.</param>
/// <param name="For">Whom an alternative helps: knees, back, wrists, shoulder, hip, ankle, balance, pregnancy, jump, kit, floor or
/// variety.</param>
public sealed record MoveOffer(MoveId Move, JsonObject With, string Differs, string? For);

/// <summary>What a coach offers beside a move, the best first. Our own, common practice.</summary>
/// <param name="Nothing">Why there is nothing easier or harder, where there is not.</param>
public sealed record MoveOffers(
    ImmutableArray<MoveOffer> Easier, ImmutableArray<MoveOffer> Harder, ImmutableArray<MoveOffer> Instead, string? Nothing)
{
    /// <summary>Nothing is offered.</summary>
    public static MoveOffers None { get; } = new([], [], [], null);

    /// <summary>From the data, where the fields of an option stand beside its words.</summary>
    internal static MoveOffers Of(JsonObject? data)
    {
        ImmutableArray<MoveOffer> List(string tier) => data?[tier] is JsonArray list ? [.. list.Select(item => One(item!.AsObject()))] : [];
        return new MoveOffers(List("easier"), List("harder"), List("instead"), data?["none"]?.GetValue<string>());
    }

    private static MoveOffer One(JsonObject data)
    {
        var fields = (JsonObject)data.DeepClone();
        var offer = new MoveOffer(
            new MoveId(data["move"]!.GetValue<string>()), fields, data["differs"]!.GetValue<string>(), data["for"]?.GetValue<string>());
        foreach (var name in (string[])["move", "differs", "for"])
        {
            fields.Remove(name);
        }

        return offer;
    }
}
