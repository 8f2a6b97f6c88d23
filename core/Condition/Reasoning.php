<?php

declare(strict_types=1);

namespace VividLedger\Condition;

/**
 * Reasons about conditions without looking at records: whether one can hold, always holds, or makes another hold. What is
 * true of a value is found by trying one value of each region; what nothing is known about may be either. So "never" and
 * "always" are said only when they are certain; where it would take too long, nothing is said.
 *
 * The search is the usual one over a tree of assignments, which gives up a branch as soon as the condition is false in it.
 */
final class Reasoning
{
    private const MOST_STEPS = 2_000;

    /** @var array<string, list<Region>> by name of the path */
    private array $regions = [];

    /** @var array<int, Atom> by object */
    private array $atoms = [];

    /** @var list<string> names of what is still to be assigned: paths and free atoms */
    private array $variables = [];

    private int $steps = 0;

    private bool $gaveUp = false;

    /**
     * @param  array<string, string|int|bool|null>  $prefer  values by name of the path, tried before others
     * @param  list<string>  $fixed
     */
    private function __construct(private readonly array $prefer, private readonly array $fixed = [])
    {
    }

    /** @return bool false only when no record can ever meet it */
    public static function canHold(Condition ...$conditions): bool
    {
        $search = new self([]);

        return $search->find(new All(array_values($conditions)), true) !== null || $search->gaveUp;
    }

    /** @return bool true only when every record meets it */
    public static function alwaysHolds(Condition $condition): bool
    {
        $search = new self([]);

        return $search->find($condition, false) === null && ! $search->gaveUp;
    }

    /** @return bool true only when every record that meets the one meets the other */
    public static function implies(Condition $one, Condition $other): bool
    {
        return ! self::canHold($one, new None([$other]));
    }

    /**
     * Values with which a condition holds, as far as values decide it.
     *
     * @param  array<string, string|int|bool|null>  $prefer  values by name of the path, kept where they will do
     * @param  list<string>  $fixed  names of the paths that keep the preferred value
     * @return ?array<string, string|int|bool|null> by name of the path; null when none are found
     */
    public static function example(Condition $condition, array $prefer = [], array $fixed = []): ?array
    {
        return (new self($prefer, $fixed))->find($condition, true);
    }

    /** @return ?array<string, string|int|bool|null> the values of an assignment in which it is as wanted */
    private function find(Condition $condition, bool $wanted): ?array
    {
        $this->prepare($condition);
        $found = $this->search($condition, $wanted, [], 0);
        if ($found === null) {
            return null;
        }
        $values = [];
        foreach ($found as $name => $choice) {
            if ($choice instanceof Region) {
                $values[$name] = $choice->value;
            }
        }

        return $values;
    }

    private function prepare(Condition $condition): void
    {
        $paths = [];
        $turns = [];
        foreach (Tree::statements($condition) as $statement) {
            $atom = $this->atoms[spl_object_id($statement)] = $statement->atom();
            if ($atom->path !== null) {
                $paths[$atom->path->name()] ??= $atom->path;
                $turns[$atom->path->name()] = [...$turns[$atom->path->name()] ?? [], ...$atom->turns];
            }
            $this->variables[] = "?{$atom->free}";
        }
        foreach ($paths as $name => $path) {
            $prefer = array_key_exists($name, $this->prefer) ? [$this->prefer[$name]] : [];
            $regions = in_array($name, $this->fixed, true) ? [new Region($prefer[0] ?? null)]
                : Regions::of($path, $turns[$name], $prefer);
            if ($regions !== null) {
                $this->regions[$name] = $regions;
            }
        }
        $this->variables = [...array_keys($this->regions), ...array_values(array_unique($this->variables))];
    }

    /**
     * @param  array<string, Region|bool>  $assigned
     * @return ?array<string, Region|bool>
     */
    private function search(Condition $condition, bool $wanted, array $assigned, int $next): ?array
    {
        if (++$this->steps > self::MOST_STEPS) {
            $this->gaveUp = true;

            return null;
        }
        $truth = $this->judge($condition, $assigned);
        if ($truth !== null) {
            return $truth === $wanted ? $assigned : null;
        }
        $variable = $this->variables[$next];
        foreach ($this->regions[$variable] ?? [true, false] as $choice) {
            $found = $this->search($condition, $wanted, [$variable => $choice] + $assigned, $next + 1);
            if ($found !== null || $this->gaveUp) {
                return $found;
            }
        }

        return null;
    }

    /**
     * @param  array<string, Region|bool>  $assigned
     * @return ?bool null while it is open
     */
    private function judge(Condition $condition, array $assigned): ?bool
    {
        if (! $condition instanceof Parted) {
            return $this->judgeAtom($this->atoms[spl_object_id($condition)], $assigned);
        }

        return $condition->truth(array_map(fn (Condition $part): ?bool => $this->judge($part, $assigned), $condition->parts()));
    }

    /** @param  array<string, Region|bool>  $assigned */
    private function judgeAtom(Atom $atom, array $assigned): ?bool
    {
        $region = $atom->path === null ? null : ($assigned[$atom->path->name()] ?? null);
        if ($region instanceof Region) {
            $truth = $atom->holds($region);
            if ($truth !== null) {
                return $truth;
            }
        }
        $free = $assigned["?{$atom->free}"] ?? null;

        return is_bool($free) ? $free : null;
    }
}
