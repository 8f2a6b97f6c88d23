<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Facts\Children;
use VividLedger\Facts\Total;
use VividLedger\Schema\Field;

/**
 * Children on which a decision turns: how many there are, what they sum up to, or which of them meet conditions. Whoever alters them
 * holds their parent first, as whoever reads them does, so that neither sees half of what the other is about.
 */
final readonly class ChildrenRead
{
    /**
     * @param  string  $type  name of the record type of the children
     * @param  string  $by  name of their reference field
     * @param  ?list<string>  $fields  names of the fields of a child that matter, the reference among them; null for any
     */
    private function __construct(public string $type, public string $by, public ?array $fields)
    {
    }

    /** @param  ?Field  $of  what is summed or compared besides */
    public static function of(Children $children, ?Field $of = null): self
    {
        $fields = [$children->by => true] + ($of === null ? [] : [$of->name => true]);
        $where = Tree::where($children);
        foreach ($where === null ? [] : $where->paths() as $path) {
            if ($path->first()->system) {
                return new self($children->type, $children->by, null);
            }
            $fields[$path->first()->name] = true;
        }

        return new self($children->type, $children->by, array_map(strval(...), array_keys($fields)));
    }

    /** @return list<self> what a condition counts, sums or compares */
    public static function in(Condition $condition): array
    {
        $read = [];
        foreach (Tree::statements($condition) as $statement) {
            if ($statement instanceof Comparison && $statement->left instanceof Total) {
                $read[] = self::of($statement->left->children, $statement->left->of);
            }
        }

        return $read;
    }
}
