using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Nodes;

namespace Halterion.Core.Moves;

/// <summary>One step of a ladder: a move done in a certain way.</summary>
/// <param name="With">Option fields of the plan language that set this step apart, such as depth or support.</param>
/// <param name="Dimension">What makes it harder than the step below (handbook, section 5): depth, support, base, load, tempo, impact or complexity.</param>
/// <param name="Up">Why it is harder than the step below, in words.</param>
/// <param name="Down">Why it is easier than the step above, in words.</param>
public sealed record Rung(MoveId Move, JsonElement? With, string Dimension, string Up, string Down)
{
    /// <summary>The step as an option of the plan language.</summary>
    public JsonObject AsOption(string tier)
    {
        var option = new JsonObject { ["tier"] = tier, ["move"] = Move.Value };
        if (With is { } fields)
        {
            foreach (var field in fields.EnumerateObject())
            {
                option[field.Name] = JsonNode.Parse(field.Value.GetRawText());
            }
        }

        return option;
    }
}

/// <summary>Steps from easier to harder.</summary>
public sealed record Ladder(string Name, ImmutableArray<Rung> Rungs);

/// <summary>An option proposed beside a move, and why.</summary>
/// <param name="Option">An option of the plan language, ready to stand at a station.</param>
public sealed record Proposal(JsonObject Option, string Name, string Dimension, string Why);

/// <summary>What the ladders propose for a move. A direction is missing only where the move stands at the end of its ladder.</summary>
public sealed record Proposals(Proposal? Easier = null, Proposal? Harder = null, Proposal? Instead = null);
