using System.Collections.Immutable;
using System.Diagnostics;
using System.Globalization;
using System.Text;
using System.Text.Json.Nodes;
using Halterion.Core;
using Halterion.Core.Body;
using Halterion.Core.Checks;
using Halterion.Core.Demands;
using Halterion.Core.Moves;
using Halterion.Core.People;
using Halterion.Core.PlanFormat;
using Halterion.Core.Planning;
using Halterion.Core.Plans;
using Halterion.Core.Room;
using Halterion.Core.Timing;

if (args is ["--nothing"])
{
    await ServerBench.Nothing();
    return;
}

if (args is ["--drafts", .. var how])
{
    DraftBench.Run(MoveLibrary.Load(), how.Contains("--told"), how.FirstOrDefault(h => !h.StartsWith('-')));
    return;
}

if (args is ["--room"])
{
    RoomBench.Run(MoveLibrary.Load());
    return;
}

// A 60-minute class of 12 blocks and 40 stations: compiled, evaluated, and evaluated over HTTP.
// Medians and allocations; the times are of this machine, the ratios to the aims are what matters.
var moves = MoveLibrary.Load();
var text = Encoding.UTF8.GetBytes(SixtyMinutes(moves));
var plan = ClassReader.Read(text, moves).Plan ?? throw new InvalidOperationException("The class of the bench has faults.");
var evaluator = new Evaluator(moves, new Preferences());
var evaluation = evaluator.Evaluate(text).Evaluation!;
Console.WriteLine($"class: {evaluation.Totals.Seconds}, {plan.Blocks.Length} blocks, {plan.Blocks.Sum(b => b.Stations.Length)} stations, "
    + $"{evaluation.Spans.Length} spans, {text.Length} bytes");

if (args is ["--server", var served])
{
    await ServerBench.Run(served, Encoding.UTF8.GetString(text));
    return;
}

Measure("read", 1, () => ClassReader.Read(text, moves));
Measure("compile", 1, () => Compiler.Compile(plan));
Measure("read, compile, check", 5, () => evaluator.Look(text));
var room = new RoomOf(
    plan, new DateOnly(2026, 11, 26),
    [
        .. Enumerable.Range(1, 16).Select(
            i => new Person(new PersonId($"p{i}"), $"Person {i}", Limits: i % 4 == 0 ? [new PersonLimit(Limit.Knee)] : []))],
    16, [], [new StockLine(KitItem.Mat, 14),
        new StockLine(KitItem.Dumbbell, 8, 6)], new Dictionary<PlaceId, ImmutableArray<ImmutableArray<PersonId>>>());
var timeline = Compiler.Compile(plan).Timeline!;
var given = Assigning.Of(room);
Measure("all checks, 16 people", 1.5,
    () => Rules.Check(new ClassReview(plan, timeline, CheckSettings.Usual, new Occasion(room, given, new RoomSize(8, 12)))));
foreach (var rule in Rules.All)
{
    var review = new ClassReview(plan, timeline, CheckSettings.Usual, new Occasion(room, given, new RoomSize(8, 12)));
    var start = Stopwatch.GetTimestamp();
    for (var i = 0; i < 100; i++)
    {
        _ = rule.Check(review).Count();
    }

    if (Stopwatch.GetElapsedTime(start).TotalMilliseconds / 100 is > 0.1 and var each)
    {
        Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"  {rule.Code,-20} {each:0.000} ms"));
    }
}

if (args is ["--checks"])
{
    return;
}

FitBench.Run(plan);
DraftBench.Run(moves, told: false, only: null);
RoomBench.Run(moves);
Poses(moves);
if (args is [var app, ..])
{
    await ServerBench.Run(app, Encoding.UTF8.GetString(text));
}

static void Measure(string name, double aim, Action action)
{
    for (var i = 0; i < 3000; i++)
    {
        action();
    }

    var times = new double[1000];
    var before = GC.GetAllocatedBytesForCurrentThread();
    for (var i = 0; i < times.Length; i++)
    {
        var start = Stopwatch.GetTimestamp();
        action();
        times[i] = Stopwatch.GetElapsedTime(start).TotalMilliseconds;
    }

    Report(name, aim, times, (GC.GetAllocatedBytesForCurrentThread() - before) / times.Length);
}

static void Poses(MoveLibrary moves)
{
    var poses = moves.Moves.SelectMany(m => m.Poses!.Poses.Select(p => (Pose: p, m.Poses.Load))).ToArray();
    void Solve(int count)
    {
        for (var i = 0; i < count; i++)
        {
            var (pose, load) = poses[i % poses.Length];
            PoseSolver.Solve(pose, load);
        }
    }

    Solve(3000);
    var start = Stopwatch.GetTimestamp();
    Solve(1000);
    var time = Stopwatch.GetElapsedTime(start).TotalMilliseconds;
    Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{"1,000 key poses",-22} {time,8:0.000} ms, aim 100 ms, "
        + $"{time / 100:0.00} of it"));

    var motion = OptionFigure.MotionOf(moves.Find(new MoveId("reverse-lunge"))!.Poses!);
    start = Stopwatch.GetTimestamp();
    for (var i = 0; i < 1000; i++)
    {
        Skeleton.Of(motion.Out(i / 1000.0));
    }

    time = Stopwatch.GetElapsedTime(start).TotalMilliseconds;
    Console.WriteLine(string.Create(CultureInfo.InvariantCulture, $"{"1,000 frames",-22} {time,8:0.000} ms, aim 100 ms, "
        + $"{time / 100:0.00} of it"));

    // A library that nobody has looked at: what is drawn once is kept by it.
    var fresh = MoveLibrary.Load();
    start = Stopwatch.GetTimestamp();
    OptionFigure.DrawAll(fresh);

    time = Stopwatch.GetElapsedTime(start).TotalMilliseconds;
    Console.WriteLine(string.Create(
        CultureInfo.InvariantCulture,
        $"{"the library's figures",-22} {time,8:0.000} ms, aim 1000 ms, {time / 1000:0.00} of it"));
}

static void Report(string name, double aim, double[] times, long? bytes)
{
    Array.Sort(times);
    var median = times[times.Length / 2];
    var allocated = bytes is { } b ? $", {b / 1024} KiB allocated" : "";
    Console.WriteLine(string.Create(
        CultureInfo.InvariantCulture,
        $"{name,-22} {median,8:0.000} ms median, {times[times.Length * 95 / 100]:0.000} ms 95th, aim {aim} ms, {median / aim:0.00} of "
        + $"it{allocated}"));
}

static string SixtyMinutes(MoveLibrary moves)
{
    var starters = new Starters(moves, new Preferences());
    var blocks = new JsonArray();
    var next = 0;
    for (var b = 0; b < 12; b++)
    {
        var stations = new JsonArray();
        for (var s = 0; s < (b < 4 ? 4 : 3); s++)
        {
            stations.Add(
                starters.Station(moves.Moves[next++ % moves.Moves.Length], b % 3 == 0 ? new Halterion.Core.Seconds(20) : null).Station);
        }

        var block = new JsonObject
        {
            ["name"] = $"Block {b + 1}",
            ["phase"] = "main",
            ["rounds"] = b % 3 == 0 ? 3
            : 1,
            ["betweenStations"] = 25,
            ["stations"] = stations
        };
        if (b % 3 == 0)
        {
            block["format"] = "rotation";
            block["windowSeconds"] = 25;
        }

        blocks.Add(block);
    }

    return new JsonObject
    {
        ["format"] = "halterion-class",
        ["version"] = 1,
        ["title"] = "Bench",
        ["slotMinutes"] = 60,
        ["blocks"] = blocks
    }.ToJsonString();
}
