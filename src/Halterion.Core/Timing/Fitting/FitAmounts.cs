using System.Collections.Immutable;
using Halterion.Core.PlanFormat;
using Halterion.Core.Plans;

namespace Halterion.Core.Timing.Fitting;

internal sealed partial class FitBlockBuilder
{
    /// <summary>Where a part stands and what it counts.</summary>
    private sealed record Spot(Station Station, int StationIndex, Part Part, int PartIndex, Amount Amount);

    /// <summary>Timed goes of one length, which change together, for they are called together.</summary>
    /// <param name="What">The station, where it is one; else what they are.</param>
    internal sealed record TimedGoes(string What, int Seconds, ImmutableArray<(int Station, int Part)> Places)
    {
        /// <summary>The block with another length for them.</summary>
        public Block With(Block of, int seconds) => Places.Aggregate(of, (block, place) =>
        {
            var station = block.Stations[place.Station];
            var dose = station.Dose.SetItem(
                place.Part, station.Dose[place.Part] with { Amount = new ByRound<Amount>(new Amount(seconds)) });
            return block with { Stations = block.Stations.SetItem(place.Station, station with { Dose = dose }) };
        });
    }

    internal IEnumerable<TimedGoes> TimedGroups() =>
        from goes in Open().Where(s => s.Part.Kind.IsTimed && s.Amount.From == s.Amount.To).GroupBy(s => (s.Part.Kind, s.Amount))
        let what = goes.Count() == 1 ? goes.First().Station.Name : goes.Key.Kind.Goes
        select new TimedGoes(what, goes.Key.Amount.To, [.. goes.Select(s => (s.StationIndex, s.PartIndex))]);

    /// <summary>By how much the bell of a rotation may move, in seconds.</summary>
    internal IEnumerable<int> WindowShifts()
    {
        var windows = Enumerable.Range(0, block.Rounds).Select(round => Bell(block, round)).ToArray();
        return terms.Steps(windows.Max(), 1800, terms.WorkFloor)
            .Select(v => v - windows.Max())
            .Where(by => Moved(block, windows, by) is not null);
    }

    private Spot[] Open() =>
    [
        .. from station in block.Stations.Select((station, index) => (Station: station, Index: index))
           from part in station.Station.Dose.Select((part, index) => (Part: part, Index: index))
           where part.Part.Amount.Values.Length == 1
           select new Spot(station.Station, station.Index, part.Part, part.Index, part.Part.Amount.At(0)),
    ];

    private IEnumerable<FitLever> Amounts(Block changed)
    {
        var open = Open();
        foreach (var goes in TimedGroups())
        {
            var spots = open.Where(s => goes.Places.Contains((s.StationIndex, s.PartIndex))).ToArray();
            int Total(int v) => spots.Sum(s => Seconds(changed, s, v));
            yield return new FitLever(
                FitKinds.Work,
                [
                    AsItIs with { Seconds = Total(goes.Seconds) },
                    .. terms.Steps(goes.Seconds, 3600, terms.WorkFloor).Select(v => new FitChoice(
                        Total(v),
                        terms.Cost(terms.WorkWeight, Math.Abs(v - goes.Seconds), goes.Seconds),
                        new FitStep($"{block.Name}: {goes.What} {goes.Seconds} s → {v} s", [.. spots.Select(s => Set(s, v))]))),
                ]);
        }

        foreach (var spot in open.Where(s => s.Part.Kind.IsCounted))
        {
            yield return new FitLever(
                FitKinds.Reps,
                [
                    AsItIs with { Seconds = Seconds(changed, spot, spot.Amount.To) },
                    .. Reps(spot.Amount).Select(v => new FitChoice(
                        Seconds(changed, spot, v),
                        terms.Cost(terms.RepsWeight, Math.Abs(v - spot.Amount.To), spot.Amount.To),
                        new FitStep(RepWords(spot, v), [Set(spot, v)], new FitAlike(block.Name, spot.Station.Name, Shift(spot, v))))),
                ]);
        }
    }

    /// <summary>Counts other than the one there is: a range's own, else within the percentage.</summary>
    private IEnumerable<int> Reps(Amount amount)
    {
        var (from, to) = amount.From < amount.To
            ? (amount.From, amount.To)
            : ((amount.To * (100 - terms.RepsPercent) + 99) / 100, amount.To * (100 + terms.RepsPercent) / 100);
        return Enumerable.Range(Math.Max(1, from), Math.Max(0, Math.Min(3600, to) - Math.Max(1, from) + 1)).Where(n => n != amount.To);
    }

    private string RepWords(Spot spot, int amount) => $"{block.Name}, {spot.Station.Name}: {Shift(spot, amount)}";

    private static string Shift(Spot spot, int amount)
    {
        var next = spot.Amount.From < spot.Amount.To ? spot.Amount with { To = amount } : new Amount(amount);
        return $"{spot.Amount} → {next} {spot.Part.Kind.Noun}";
    }

    private Edit Set(Spot spot, int amount)
    {
        var pointer = $"{at}/stations/{spot.StationIndex}/dose/{spot.PartIndex}/amount";
        var stays = spot.Amount.From < spot.Amount.To && spot.Amount.From < amount;
        return new Edit(pointer, PlanWriter.Of(stays ? spot.Amount with { To = amount } : new Amount(amount)));
    }

    /// <summary>What a part takes in the whole block with this amount, with the switches that hang on it.</summary>
    private static int Seconds(Block block, Spot spot, int amount)
    {
        var (station, part) = (spot.Station, spot.Part);
        var once = part.SecondsFor(amount) * (station.Sides == SideRule.Each ? 2 : 1);
        return Enumerable.Range(0, block.Rounds).Where(round => part.Rounds.Has(round, block.Rounds)).Sum(round =>
            (station.Turns ? 2 : 1) * block.Passes * (station.Chunk > 0 ? Chunks(block, station, part, amount, round) : once));
    }

    private static int Chunks(Block block, Station station, Part part, int amount, int round)
    {
        var (goes, left) = Math.DivRem(amount, station.Chunk);
        var oneSide = goes * part.SecondsFor(station.Chunk) + (left > 0 ? part.SecondsFor(left) : 0);
        return 2 * oneSide + (2 * (goes + (left > 0 ? 1 : 0)) - 1) * block.SwitchAt(station, round).Value;
    }

    /// <summary>
    /// The bell of a rotation: timed goes that fill the window move with it, other targets shrink where they no longer fit.
    /// </summary>
    private FitLever? Window(Block changed)
    {
        var windows = Enumerable.Range(0, changed.Rounds).Select(round => Bell(changed, round)).ToArray();
        var choices = ImmutableArray.CreateBuilder<FitChoice>();
        var longest = windows.Max();
        choices.Add(AsItIs with { Seconds = windows.Sum() * block.Stations.Length });
        foreach (var v in terms.Steps(longest, 1800, terms.WorkFloor))
        {
            if (Moved(changed, windows, v - longest) is { } choice)
            {
                choices.Add(choice);
            }
        }

        return new FitLever(FitKinds.Work, choices.ToImmutable());
    }

    private static int Bell(Block block, int round) =>
        block.Window?.At(round).Value ?? (block.Stations.Max(s => Needed(s, block, round)) + 4) / 5 * 5;

    private static int Needed(Station station, Block block, int round) =>
        DoseClock.Total(DoseClock.Stretches(station, block, round, Compiler.SideOfRound(block, round, 0)));

    private FitChoice? Moved(Block changed, int[] windows, int by)
    {
        if (windows.Any(w => w + terms.Within(w, by) < Math.Max(5, Math.Min(w, terms.WorkFloor))) || (changed.Window is null && by > 0))
        {
            return null;
        }

        var edits = ImmutableArray.CreateBuilder<Edit>();
        var stations = changed.Stations.ToBuilder();
        var cost = terms.Cost(terms.WorkWeight, Math.Abs(by), windows.Max());
        for (var i = 0; i < stations.Count; i++)
        {
            if (Adapted(changed, i, windows, by) is not { } amount)
            {
                return null;
            }

            if (amount.Spot is { } spot)
            {
                edits.Add(Set(spot, amount.To));
                stations[i] = WithAmount(stations[i], spot, amount.To);
                cost += spot.Part.Kind.IsTimed ? 0 : terms.Cost(terms.RepsWeight, spot.Amount.To - amount.To, spot.Amount.To);
            }
        }

        var moved = changed with { Stations = stations.ToImmutable() };
        if (changed.Window is { } window)
        {
            var next = new ByRound<Seconds>([.. window.Values.Select(w => new Seconds(w.Value + terms.Within(w.Value, by)))]);
            if (next.Values.Any(w => w.Value is < 5 or > 1800))
            {
                return null;
            }

            moved = moved with { Window = next };
            edits.Add(new Edit($"{at}/windowSeconds", PlanWriter.Of(next)));
        }

        var seconds = Enumerable.Range(0, moved.Rounds).Sum(round => Bell(moved, round)) * moved.Stations.Length;
        return new FitChoice(seconds, cost, new FitStep(WindowWords(windows, by), edits.ToImmutable()));
    }

    /// <summary>"“Six”: window 117, 60 s → 82, 45 s".</summary>
    internal string WindowWords(IEnumerable<int> windows, int by)
    {
        var all = windows.Distinct().ToArray();
        return $"{block.Name}: work interval {string.Join(", ", all)} s → {string.Join(", ", all.Select(w => w + terms.Within(w, by)))} s";
    }

    /// <summary>
    /// The amount with which a station fits the moved windows as well as it did before: no spot, if it may stay; null, if none fits.
    /// </summary>
    private (Spot? Spot, int To)? Adapted(Block changed, int index, int[] windows, int by)
    {
        var station = changed.Stations[index];
        bool Fits(Station tried) => Enumerable.Range(0, windows.Length).All(round =>
            Needed(station, changed, round) > windows[round] || Needed(tried, changed, round) <= windows[round]
                + terms.Within(windows[round], by));
        var fills = windows.Select((w, round) => Needed(station, changed, round) == w).All(full => full);
        if (by < 0 ? Fits(station) : !fills)
        {
            return (null, 0);
        }

        var counted = station.Dose.Where(p => p.Kind.IsWork).ToArray();
        if (counted is not [{ Amount.Values.Length: 1 } part])
        {
            return by < 0 ? null : (null, 0);
        }

        var spot = new Spot(station, index, part, station.Dose.IndexOf(part), part.Amount.At(0));
        var smaller = part.Kind.IsTimed && spot.Amount.From == spot.Amount.To ? terms.Steps(spot.Amount.To, 3600, terms.WorkFloor)
            : part.Kind.IsCounted && by < 0 ? Reps(spot.Amount)
            : [];
        var tried = smaller.Where(v => by < 0 ? v < spot.Amount.To : v > spot.Amount.To).OrderDescending().ToArray();
        foreach (var amount in tried)
        {
            if (Fits(WithAmount(station, spot, amount)))
            {
                return (spot, amount);
            }
        }

        return by < 0 ? null : (null, 0);
    }

    private static Station WithAmount(Station station, Spot spot, int amount) => station with
    {
        Dose = station.Dose.SetItem(
            spot.PartIndex, spot.Part with { Amount = new ByRound<Amount>(new Amount(Math.Min(spot.Amount.From, amount), amount)) }),
    };
}
