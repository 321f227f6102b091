using System.Collections.Immutable;
using System.Text;
using System.Text.Json.Nodes;
using Halterion.Core.Checks;
using Halterion.Core.Demands;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing.Fitting;

namespace Halterion.Core.Planning.Weeks;

/// <summary>Makes the main work of a class a step harder. [M] The steps are our choice.</summary>
internal static class HarderWeek
{
    private const int MoreReps = 1;
    private const int MostAmount = 3600;
    private const int MostRounds = 20;
    private const int LessRest = 10;
    private const int RestFloor = 15;

    /// <summary>What Fit calls it; none for what Fit does not change.</summary>
    public static FitKinds KindOf(HarderBy kind) => kind switch
    {
        HarderBy.Reps => FitKinds.Reps,
        HarderBy.Rounds => FitKinds.Rounds,
        HarderBy.Rest => FitKinds.Rest,
        HarderBy.Options => FitKinds.None,
    };

    public static string Words(HarderBy kind) => kind switch
    {
        HarderBy.Reps => "A rep more",
        HarderBy.Rounds => "A round more",
        HarderBy.Rest => "Less rest",
        HarderBy.Options => "A step up",
    };

    /// <summary>Changes the file in place; where there is nothing to make harder it stays as it is.</summary>
    public static void Make(JsonObject file, HarderBy kind, Evaluator evaluator)
    {
        var plan = evaluator.Evaluate(Encoding.UTF8.GetBytes(file.ToJsonString())).Plan!;
        for (var b = 0; b < plan.Blocks.Length; b++)
        {
            if (!ClassReview.IsMain(plan.Blocks[b]))
            {
                continue;
            }

            var block = file["blocks"]![b]!.AsObject();
            switch (kind)
            {
                case HarderBy.Reps:
                    foreach (var part in Parts(block, "reps"))
                    {
                        Shift(part, "amount", v => Math.Min(MostAmount, v + MoreReps));
                    }

                    break;
                case HarderBy.Rounds when plan.Blocks[b].Shape.IsInRounds && plan.Blocks[b].Rounds < MostRounds:
                    MoreRounds.Put(block, plan.Blocks[b].Rounds + 1);
                    break;
                case HarderBy.Rounds:
                    break;
                case HarderBy.Rest:
                    Shift(block, "betweenRounds", Shorter);
                    Shift(block, "betweenSets", Shorter);
                    foreach (var station in Stations(block))
                    {
                        Shift(station, "betweenSets", Shorter);
                    }

                    break;
                case HarderBy.Options:
                    for (var s = 0; s < plan.Blocks[b].Stations.Length; s++)
                    {
                        StepUp(file, block["stations"]!.AsArray(), s, plan.Blocks[b].Stations[s], plan, evaluator);
                    }

                    break;
            }
        }
    }

    internal static IEnumerable<JsonObject> Stations(JsonObject block) => (block["stations"] as JsonArray ?? []).OfType<JsonObject>();

    internal static IEnumerable<JsonObject> Parts(JsonObject block, string kind) =>
        Stations(block).SelectMany(s => (s["dose"] as JsonArray ?? []).OfType<JsonObject>()).Where(p => (string?)p["kind"] == kind);

    /// <summary>Changes a number, both ends of a range, or each of a list.</summary>
    internal static void Shift(JsonObject of, string field, Func<int, int> by)
    {
        if (of[field] is { } value)
        {
            of[field] = Shifted(value, by);
        }
    }

    private static JsonNode Shifted(JsonNode value, Func<int, int> by) => value switch
    {
        JsonArray list => new JsonArray([.. list.Select(v => Shifted(v!, by))]),
        JsonObject range => new JsonObject(range.Select(p => KeyValuePair.Create(p.Key, (JsonNode?)Shifted(p.Value!, by)))),
        JsonValue number when number.TryGetValue<int>(out var n) => JsonValue.Create(by(n)),
        _ => value.DeepClone(),
    };

    private static int Shorter(int rest) => rest <= RestFloor ? rest : Math.Max(RestFloor, rest - LessRest);

    /// <summary>
    /// The main option goes one step up, to the nearest rung that can be done as the station says. What was main is now the easier one.
    /// Options keep their ids.
    /// </summary>
    private static void StepUp(JsonObject file, JsonArray stations, int index, Station of, ClassPlan plan, Evaluator evaluator)
    {
        var before = stations[index]!.DeepClone();
        foreach (var up in Above(of, plan))
        {
            Take(stations[index]!.AsObject(), up, plan);
            if (evaluator.Look(Encoding.UTF8.GetBytes(file.ToJsonString())).Timeline is not null)
            {
                return;
            }

            stations[index] = before.DeepClone();
        }
    }

    private static void Take(JsonObject station, Option up, ClassPlan plan)
    {
        var options = station["options"]!.AsArray();
        var main = options.OfType<JsonObject>().First(o => (string?)o["tier"] == "main");
        var before = main.DeepClone().AsObject();
        Put(main, PlanWriter.Of(up), "main");
        if (options.OfType<JsonObject>().FirstOrDefault(o => (string?)o["tier"] == "easier") is { } easier)
        {
            Put(easier, before, "easier");
        }

        foreach (var harder in options.OfType<JsonObject>().Where(o => (string?)o["tier"] == "harder").ToArray())
        {
            if (Proposals.For(new Doing(up.Move, up.Manner), plan.Moves).Harder is { } next)
            {
                Put(harder, next.Option, "harder");
            }
            else
            {
                options.Remove(harder);
            }
        }
    }

    /// <summary>The rungs above on its ladder, with what it is loaded with; then what else is harder.</summary>
    private static IEnumerable<Option> Above(Station of, ClassPlan plan)
    {
        var main = of.Main;
        foreach (var ladder in plan.Moves.Ladders.Where(l => l.PlainRung(main.Move) >= 0))
        {
            foreach (var step in ladder.Rungs.Skip(ladder.PlainRung(main.Move) + 1).Take(Rungs))
            {
                var rung = Proposals.OptionOf(step, Tier.Main, plan.Moves);
                var (load, tempo) = (rung.Manner.Load ?? main.Manner.Load, rung.Manner.Tempo ?? main.Manner.Tempo);
                yield return rung with { Manner = rung.Manner with { Load = load, Tempo = tempo } };
            }
        }

        foreach (var harder in Proposals.All(new Doing(main.Move, main.Manner), Tier.Harder, plan.Moves).Take(Rungs))
        {
            yield return harder.Of with { Tier = Tier.Main };
        }
    }

    /// <summary>Further up is no step any more. [M]</summary>
    private const int Rungs = 2;

    private static void Put(JsonObject option, JsonObject what, string tier)
    {
        var id = option["id"]?.DeepClone();
        option.Clear();
        if (id is not null)
        {
            option["id"] = id;
        }

        option["tier"] = tier;
        foreach (var (name, value) in what)
        {
            // The main option is done as much and on the sides as the station says.
            if (name is not ("id" or "tier") && (tier != "main" || name is not ("scale" or "sides" or "chunk")))
            {
                option[name] = value?.DeepClone();
            }
        }
    }
}
