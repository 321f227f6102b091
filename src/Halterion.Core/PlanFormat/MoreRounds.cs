using System.Text.Json.Nodes;

namespace Halterion.Core.PlanFormat;

/// <summary>More rounds for a block whose targets are listed by round: the list goes on as it went.</summary>
public static class MoreRounds
{
    /// <summary>
    /// Sets the rounds of a block. Lists of targets that had one for each round get one for each new round: by the last step
    /// where they fall or rise (20, 15, 12 is followed by 9), never below 1, else the last one again. [M]
    /// </summary>
    public static void Put(JsonObject block, int rounds)
    {
        var before = block["rounds"] is JsonValue written && written.TryGetValue<int>(out var number) ? number : 1;
        block["rounds"] = rounds;
        foreach (var amount in Lists(block).Where(list => list.Count >= 2 && list.Count == before && rounds > before))
        {
            var numbers = amount.Select(a => a is JsonValue value && value.TryGetValue<int>(out var n) ? n : (int?)null).ToList();
            var even = numbers.TrueForAll(n => n is not null)
                && numbers.Zip(numbers.Skip(1), (a, b) => Math.Sign(b!.Value - a!.Value)).Distinct().Count() == 1;
            while (amount.Count < rounds)
            {
                if (even)
                {
                    numbers.Add(Math.Clamp(numbers[^1]!.Value + numbers[^1]!.Value - numbers[^2]!.Value, 1, 3600));
                    amount.Add(numbers[^1]!.Value);
                }
                else
                {
                    amount.Add(amount[^1]!.DeepClone());
                }
            }
        }
    }

    private static IEnumerable<JsonArray> Lists(JsonObject block) =>
        from station in (block["stations"] as JsonArray ?? []).OfType<JsonObject>()
        from part in (station["dose"] as JsonArray ?? []).OfType<JsonObject>()
        where part["amount"] is JsonArray
        select (JsonArray)part["amount"]!;
}
