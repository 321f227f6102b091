using System.Collections.Immutable;
using System.Text.Json;
using Halterion.Core.Moves;

namespace Halterion.Core.PlanFormat;

/// <summary>A user's own moves. Which fields there are <see cref="MoveTable"/> says.</summary>
internal sealed partial class Context
{
    public bool Has(MoveId id) => moves.Has(id);

    public Move? Find(MoveId id) => moves.Find(id);

    public ImmutableArray<Move> ReadOwnMoves(JsonElement root)
    {
        OwnMoves(new Fields(root, "", faults), inClass: false);
        return own;
    }

    /// <summary>
    /// The user's own moves that travel in the class; the library with them in it, in which from here on they are found.
    /// </summary>
    /// <param name="inClass">A class's own moves win inside it: a file that once opened opens for ever, whatever ids the library
    /// takes.</param>
    public MoveLibrary OwnMoves(Fields fields, bool inClass)
    {
        var items = fields.Items("moves", 0, ClassTable.MostMoves, "moves");
        var read = ImmutableArray.CreateBuilder<Move>();
        for (var i = 0; i < items.Length; i++)
        {
            var inner = new Fields(items[i], $"/moves/{i}", faults);
            var move = PlanLanguage.Move.Read(
                this, inner, PlanLanguage.BlankMove, new MovePlace(f => new MoveId(FreeId(f, read, inClass) ?? "")));
            if (move.Id.Value.Length > 0 && move.Name.Length > 0 && inner.Has("family"))
            {
                read.Add(move);
            }
        }

        own = read.ToImmutable();
        return moves = moves.Over(own);
    }

    /// <summary>The id of an own move, if it is one and nobody's yet.</summary>
    private string? FreeId(Fields fields, IEnumerable<Move> before, bool inClass)
    {
        if (fields.Text("id", 1, 120, required: true) is not { } id)
        {
            return null;
        }

        if (!MoveTable.IsId(id))
        {
            fields.Fault("id", $"“{id}” is not a valid id.", "small letters, digits and hyphens, such as my-squat");
            return null;
        }

        if ((!inClass && moves.IsShipped(new MoveId(id))) || before.Any(m => m.Id.Value == id))
        {
            fields.Fault("id", $"A move with the id “{id}” exists already.", "an id of its own");
            return null;
        }

        return id;
    }
}
