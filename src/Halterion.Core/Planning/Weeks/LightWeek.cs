using System.Text;
using System.Text.Json.Nodes;
using Halterion.Core.Checks;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing;

namespace Halterion.Core.Planning.Weeks;

/// <summary>Makes the main work of a class light: about six tenths of it. [M]</summary>
internal static class LightWeek
{
    private const int Tenths = 6;

    /// <summary>
    /// Changes the file in place: rounds first, then reps, so that the main reps of both legs are nearest to six tenths of what they were.
    /// </summary>
    public static void Make(JsonObject file, Evaluator evaluator)
    {
        var before = Read(file, evaluator);
        var blocks = file["blocks"]!.AsArray();
        for (var b = 0; b < before.Blocks.Length; b++)
        {
            var block = before.Blocks[b];
            if (ClassReview.IsMain(block) && block.Shape.IsInRounds && block.Rounds > 1)
            {
                var rounds = ((Tenths * block.Rounds) + 9) / 10;
                var as0 = blocks[b]!.DeepClone();
                var written = blocks[b]!.AsObject();
                written["rounds"] = rounds;
                if (block.OptionalRounds >= rounds)
                {
                    written["optionalRounds"] = rounds - 1;
                }

                // A part that is done in a round that went may not be written any more: the block keeps its rounds then.
                if (evaluator.Look(Encoding.UTF8.GetBytes(file.ToJsonString())).Timeline is null)
                {
                    blocks[b] = as0;
                }
            }
        }

        var wanted = MainReps(before) * Tenths / 10m;
        var now = Read(file, evaluator);
        var parts = Enumerable.Range(0, now.Blocks.Length).Where(b => ClassReview.IsMain(now.Blocks[b]) && now.Blocks[b].Shape.IsInRounds)
            .SelectMany(b => HarderWeek.Parts(blocks[b]!.AsObject(), "reps")).ToArray();
        if (MainReps(now) is > 0 and var reps && reps > wanted)
        {
            Nearest(file, parts, wanted / reps, wanted, evaluator);
        }
    }

    /// <summary>All parts by the same share, rounded down; then one more here and there while that comes nearer.</summary>
    private static void Nearest(JsonObject file, JsonObject[] parts, decimal share, decimal wanted, Evaluator evaluator)
    {
        foreach (var part in parts)
        {
            HarderWeek.Shift(part, "amount", v => Math.Max(1, (int)Math.Floor(v * share)));
        }

        var gap = Math.Abs(MainReps(Read(file, evaluator)) - wanted);
        foreach (var part in parts)
        {
            var as0 = part["amount"]!.DeepClone();
            HarderWeek.Shift(part, "amount", v => v + 1);
            var then = Math.Abs(MainReps(Read(file, evaluator)) - wanted);
            if (then < gap)
            {
                gap = then;
            }
            else
            {
                part["amount"] = as0;
            }
        }
    }

    internal static long MainReps(ClassPlan plan) => plan.Blocks.Where(b => ClassReview.IsMain(b) && b.Shape.IsInRounds)
        .Select(Counts.Of).Sum(c => c.Left + c.Right);

    private static ClassPlan Read(JsonObject file, Evaluator evaluator) =>
        ClassReader.Read(Encoding.UTF8.GetBytes(file.ToJsonString()), evaluator.Moves).Plan!;
}
