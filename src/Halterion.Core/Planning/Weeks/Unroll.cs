using System.Collections.Immutable;
using System.Globalization;
using System.Text;
using System.Text.Json;
using System.Text.Json.Nodes;
using Halterion.Core.Words;
using Halterion.Core.Checks;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;
using Halterion.Core.Timing;
using Halterion.Core.Timing.Fitting;

namespace Halterion.Core.Planning.Weeks;

/// <summary>A class of a series that was changed by hand.</summary>
/// <param name="Plan">As it was made.</param>
/// <param name="Followed">The weeks after it go on from it; else as if it had not been changed.</param>
public sealed record ByHand(JsonObject Plan, bool Followed);

/// <summary>Lays the classes of a series out over its weeks (docs/logbook.md).</summary>
public sealed class Unroll
{
    private readonly Series series;
    private readonly Evaluator evaluator;
    private readonly IReadOnlyDictionary<(DateOnly, string Time), ByHand> changed;

    private Unroll(Series series, Evaluator evaluator, IReadOnlyDictionary<(DateOnly, string Time), ByHand>? changed) =>
        (this.series, this.evaluator, this.changed) = (series, evaluator, changed ?? ImmutableDictionary<(DateOnly, string), ByHand>.Empty);

    /// <param name="classes">By name, as files without faults: the first week.</param>
    /// <param name="changed">By day and time, what was changed by hand.</param>
    public static ImmutableArray<SeriesClass> Of(
        Series series,
        IReadOnlyDictionary<string, JsonElement> classes,
        Evaluator evaluator,
        IReadOnlyDictionary<(DateOnly, string Time), ByHand>? changed = null) => new Unroll(series, evaluator, changed).All(classes);

    private ImmutableArray<SeriesClass> All(IReadOnlyDictionary<string, JsonElement> classes)
    {
        var strong = classes.ToDictionary(c => c.Key, c => JsonNode.Parse(PlanIds.Written(c.Value).GetRawText())!.AsObject());
        var made = new Dictionary<(int Week, string Class), Made>();
        var held = new List<HeldClass>();
        var all = ImmutableArray.CreateBuilder<SeriesClass>();
        foreach (var (week, date, day) in series.Dates())
        {
            // Held twice in a week, it is the same class both times.
            if (!made.TryGetValue((week, day.Class), out var now))
            {
                now = Week(strong[day.Class], week);
                made[(week, day.Class)] = now;
                strong[day.Class] = series.IsLight(week) ? strong[day.Class] : now.Plan;
            }

            if (changed.TryGetValue((date, day.Time), out var hand))
            {
                if (hand.Followed && !series.IsLight(week))
                {
                    strong[day.Class] = hand.Plan;
                }

                now = new Made(hand.Plan, ["Changed by hand."]);
            }

            all.Add(Placed(now, week, date, day, held));
        }

        return all.ToImmutable();
    }

    private sealed record Made(JsonObject Plan, ImmutableArray<string> Changes);

    private Made Week(JsonObject before, int week)
    {
        if (week == 1)
        {
            return new Made(before, []);
        }

        if (series.IsLight(week))
        {
            var light = before.DeepClone().AsObject();
            LightWeek.Make(light, evaluator);
            return new Made(light, Between(before, light));
        }

        return series.HarderIn(week) is { } kind ? Harder(before, kind) : new Made(before, []);
    }

    private Made Harder(JsonObject before, HarderBy kind)
    {
        var harder = before.DeepClone().AsObject();
        HarderWeek.Make(harder, kind, evaluator);
        if (Look(harder) is not { Evaluation: { } after, Plan: { } plan } || JsonNode.DeepEquals(before, harder))
        {
            return new Made(before, [$"{HarderWeek.Words(kind)} is not possible here: it stays as it was."]);
        }

        if (after.Totals.OverSeconds <= Seconds.Zero)
        {
            return new Made(harder, Between(before, harder));
        }

        var terms = new FitTerms { Changes = ChangeTimes.Of(evaluator.Preferences) };
        if (Fit.Shorter(plan, terms, FitKinds.All & ~HarderWeek.KindOf(kind)) is { } way)
        {
            foreach (var edit in way.Edits)
            {
                edit.ApplyTo(harder);
            }

            if (Look(harder).Evaluation is { } shorter && shorter.Totals.OverSeconds <= Seconds.Zero)
            {
                return new Made(harder, Between(before, harder));
            }
        }

        return new Made(before, [
            $"{HarderWeek.Words(kind)} would end {after.Totals.OverSeconds.Apart()} late, and nothing makes room for "
                + $"it, so it was left out."]);
    }

    private SeriesClass Placed(Made made, int week, DateOnly date, SeriesDay day, List<HeldClass> held)
    {
        var result = Look(made.Plan);
        var (plan, timeline) = (result.Plan!, result.Timeline!);
        var start = date.ToDateTime(TimeOnly.ParseExact(day.Time, "HH:mm", CultureInfo.InvariantCulture));
        var last = !series.Dates().Any(d => d.Week == week && (d.Date, d.Day.Time).CompareTo((date, day.Time)) > 0);
        var review = new ClassReview(plan, timeline, evaluator.Settings, null, new History(start, [.. held], last));
        held.Add(new HeldClass(
            start, timeline.Length.Value / 60, null,
            WeekRule.HardSets(review).ToImmutableSortedDictionary(s => s.Key, s => s.Value), review.MainMoves(), null));
        return new SeriesClass(
            week, date, day.Time, day.Class, series.IsLight(week), made.Plan.DeepClone().AsObject(), made.Changes, Rules.Check(review))
        {
            Evaluation = result.Evaluation!,
        };
    }

    private ImmutableArray<string> Between(JsonObject before, JsonObject after) => PlanChanges.Between(before, after, evaluator.Moves);

    private EvaluationResult Look(JsonObject file) => evaluator.Evaluate(Encoding.UTF8.GetBytes(file.ToJsonString()));
}
