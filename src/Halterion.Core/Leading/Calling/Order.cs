namespace Halterion.Core.Leading.Calling;

/// <summary>Of two calls that would overlap the one with the greater number is said. leading.md, "Calls", 9. [M]</summary>
internal static class Order
{
    public const int Side = 100;
    public const int KitDown = 95;
    public const int KitUp = 90;
    public const int LastNumbers = 85;
    public const int Next = 80;
    public const int Hold = 75;
    public const int Option = 70;
    public const int Where = 65;
    public const int Form = 60;
    public const int Number = 55;
    public const int Time = 50;
    public const int Breath = 45;
}
