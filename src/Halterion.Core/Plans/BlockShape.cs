namespace Halterion.Core.Plans;

/// <summary>
/// How a block runs: the plan language's <c>format</c>, <c>order</c> and <c>startEverySeconds</c> in one word. The set is closed: what
/// a shape is answered here, and what else depends on it is a switch without a rest, so that the compiler names every place for a new one.
/// </summary>
public enum BlockShape
{
    /// <summary>All stations once, then the next round.</summary>
    Circuit,

    /// <summary>A circuit in which every station starts a fixed number of seconds after the one before it.</summary>
    OnTheClock,

    /// <summary>All sets of a station, then the next station.</summary>
    Sets,

    /// <summary>A group at each station; all move on at the bell.</summary>
    Rotation,

    /// <summary>A fixed time in which everyone goes round as they can.</summary>
    OwnPace,

    /// <summary>Words, a walk-through or a drink; no stations.</summary>
    Talk,
}

/// <summary>Where a pause of the whole block stands.</summary>
public enum Gap
{
    /// <summary>Between two stations; a rest where recovery is done there, else a change.</summary>
    Stations,

    /// <summary>Between two rounds or sets.</summary>
    Rounds,

    /// <summary>At the end of the block.</summary>
    End,
}

/// <summary>What the shapes of a block answer for themselves.</summary>
public static class BlockShapes
{
    extension(BlockShape shape)
    {
        /// <summary>Something is done in it.</summary>
        public bool HasStations => shape is not BlockShape.Talk;

        /// <summary>Everyone is at the same station and goes on to the next one together.</summary>
        public bool IsOneByOne => shape switch
        {
            BlockShape.Circuit or BlockShape.OnTheClock or BlockShape.Sets => true,
            BlockShape.Rotation or BlockShape.OwnPace or BlockShape.Talk => false,
        };

        /// <summary>People are at all stations at once.</summary>
        public bool IsSpread => shape switch
        {
            BlockShape.Rotation or BlockShape.OwnPace => true,
            BlockShape.Circuit or BlockShape.OnTheClock or BlockShape.Sets or BlockShape.Talk => false,
        };

        /// <summary>Its rounds stand on the clock; those of an own-pace block are a goal.</summary>
        public bool IsInRounds => shape switch
        {
            BlockShape.Circuit or BlockShape.OnTheClock or BlockShape.Sets or BlockShape.Rotation => true,
            BlockShape.OwnPace or BlockShape.Talk => false,
        };

        /// <summary>Its changes are as long as is written; on the clock they come out of what is left of the start.</summary>
        public bool HasChanges => shape switch
        {
            BlockShape.Circuit or BlockShape.Sets or BlockShape.Rotation => true,
            BlockShape.OnTheClock or BlockShape.OwnPace or BlockShape.Talk => false,
        };

        /// <summary>What a time through its stations is called.</summary>
        public string RoundWord => shape switch
        {
            BlockShape.Sets => "set",
            BlockShape.Circuit or BlockShape.OnTheClock or BlockShape.Rotation or BlockShape.OwnPace or BlockShape.Talk => "round",
        };

        /// <summary>The pause in which people drink where the block has water: between rounds, and in sets between the stations.</summary>
        public Gap? DrinkGap => shape switch
        {
            BlockShape.Sets => Gap.Stations,
            BlockShape.Circuit or BlockShape.OnTheClock or BlockShape.Rotation => Gap.Rounds,
            BlockShape.OwnPace or BlockShape.Talk => null,
        };

        /// <summary>It has rests in which all stations of a round are behind everyone.</summary>
        public bool RestsBetweenRounds => shape.IsInRounds && shape != BlockShape.Sets;

        /// <summary>The field of the file that holds the rest between its rounds or sets.</summary>
        public string RestField => shape switch
        {
            BlockShape.Sets => "betweenSets",
            BlockShape.Circuit or BlockShape.OnTheClock or BlockShape.Rotation or BlockShape.OwnPace or BlockShape.Talk => "betweenRounds",
        };

        /// <summary>Whether a round can give its side to all stations in this way.</summary>
        public bool Takes(SidePass pass) => pass switch
        {
            SidePass.Station => true,
            SidePass.Round => shape is BlockShape.Circuit or BlockShape.OnTheClock,
            SidePass.Alternate => shape is BlockShape.Circuit or BlockShape.OnTheClock or BlockShape.Rotation,
        };
    }
}
