<?php

declare(strict_types=1);

namespace VividLedger\Condition;

use VividLedger\Condition\Operator\Operator;
use VividLedger\Condition\Operator\Operators;
use VividLedger\Condition\Operator\Opposite;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Json;
use VividLedger\Shape\Kinds;
use VividLedger\Shape\Node;
use VividLedger\Shape\Parsed;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;

/** Conditions in one line: "Priority is Urgent and (Stage is Sent or Stage is In talks)". */
final readonly class ConditionSlot implements Worded
{
    private const JOINED = ['all' => 'and', 'any' => 'or'];

    private const ALSO_JOINED = [
        'all' => ['and also', 'and it', 'but', 'as well as', '&&', 'and if', 'and where', 'and that', ','], 'any' => ['or if', '||'],
    ];

    private const OPENED = ['all' => 'all of', 'any' => 'any of', 'none' => 'none of'];

    /**
     * @param  bool  $isRoot  whether a single condition stands in a group of its own
     * @param  string  $more  what could be added where there is none
     * @param  string  $margin  what stands beside its first row
     */
    public function __construct(private bool $isRoot = false, private string $more = '', private string $margin = '')
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        if (! is_array($json)) {
            return null;
        }
        $of = $json['of'] ?? null;
        if ($this->isRoot && ($json['kind'] ?? null) === 'all' && is_array($of) && count($of) === 1
            && ! isset(self::OPENED[self::kind($of[0] ?? null)])) {
            return self::printed($of[0], $scope, false);
        }

        return self::printed($json, $scope, false);
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        return array_map(
            fn (Parsed $one): Parsed => $this->isRoot && ! isset(self::OPENED[self::kind($one->json)])
                ? $one->as(['kind' => 'all', 'of' => [$one->json]]) : $one,
            self::joined($typed, $at, $scope),
        );
    }

    /** @return list<Parsed> the opposites of what stands behind "unless" */
    public static function unless(Typed $typed, int $at, Scope $scope): array
    {
        $found = [];
        foreach ($typed->isLoose ? ['unless', 'except when', 'except if', 'but not if', 'but not when'] : [] as $words) {
            $behind = $typed->words($at, $words, 1);
            foreach ($behind === null ? [] : (new self)->parse($typed, $behind, $scope, []) as $condition) {
                $found[] = self::negated($condition);
            }
        }

        return $found;
    }

    /** The opposite of a condition: by the operator that says so, or as a group of which nothing holds. */
    private static function negated(Parsed $condition): Parsed
    {
        $json = $condition->json;
        $opposite = is_array($json) ? (self::opposites()[self::kind($json)] ?? null) : null;

        return new Parsed(match (true) {
            $opposite !== null => ['kind' => $opposite] + (array) $json,
            self::kind($json) === 'any' => ['kind' => 'none', 'of' => is_array($json) ? ($json['of'] ?? []) : []],
            default => ['kind' => 'none', 'of' => [$json]],
        }, $condition->end, $condition->cost + 1);
    }

    public function read(Context $context, Node $node, Filled $around): ?Condition
    {
        return ConditionReader::read($context, $node, $this->margin, 1);
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
        if ($this->more !== '') {
            $context->more($this->more, $node->at, Editor::conditions());
        }
    }

    public function schema(): array
    {
        return Json::ref('condition');
    }

    private static function kind(mixed $json): string
    {
        return is_array($json) && is_string($json['kind'] ?? null) ? $json['kind'] : '';
    }

    private static function printed(mixed $json, Scope $scope, bool $inside): ?string
    {
        $kind = self::kind($json);
        if (! is_array($json)) {
            return null;
        }
        if (! isset(self::OPENED[$kind])) {
            return self::atom($json, $scope);
        }
        if (array_diff(array_keys($json), ['kind', 'of']) !== [] || ! is_array($json['of'] ?? null) || $json['of'] === []) {
            return null;
        }
        $isJoined = isset(self::JOINED[$kind]) && count($json['of']) > 1;
        $parts = [];
        foreach ($json['of'] as $part) {
            $text = self::printed($part, $scope, true);
            if ($text === null) {
                return null;
            }
            $parts[] = $text;
        }
        $text = $isJoined ? implode(' '.self::JOINED[$kind].' ', $parts) : self::OPENED[$kind].' ('.implode('; ', $parts).')';

        return $isJoined && $inside ? "({$text})" : $text;
    }

    /** @param  array<mixed>  $json */
    private static function atom(array $json, Scope $scope): ?string
    {
        foreach (self::shapes() as $shape) {
            $text = $shape->print($json, $scope, []);
            if ($text !== null) {
                return $text;
            }
        }

        return null;
    }

    /**
     * Terms joined by one word; of "and" and "or" together nobody knows which binds closer, so that takes brackets.
     *
     * @return list<Parsed>
     */
    private static function joined(Typed $typed, int $at, Scope $scope): array
    {
        return $typed->once("joined:{$scope->type->name}", $at, static function () use ($typed, $at, $scope): array {
            $first = self::term($typed, $at, $scope);
            $found = $first;
            foreach (self::JOINED as $kind => $word) {
                $open = array_map(static fn (Parsed $one): Parsed => $one->as([$one->json]), $first);
                while ($open !== []) {
                    $longer = [];
                    foreach ($open as $list) {
                        foreach (self::behind($typed, $list->end, $word, $kind) as [$behind, $cost]) {
                            foreach (self::term($typed, $behind, $scope) as $next) {
                                if (self::contradicts($list, $next, $kind)) {
                                    continue;
                                }
                                $parts = [...(is_array($list->json) ? array_values($list->json) : []), $next->json];
                                $longer[] = new Parsed($parts, $next->end, $list->cost + $next->cost + $cost);
                            }
                        }
                    }
                    $open = Parsed::distinct($longer);
                    foreach ($open as $list) {
                        $found[] = $list->as(['kind' => $kind, 'of' => $list->json]);
                    }
                }
            }

            return Parsed::distinct($found);
        });
    }

    /**
     * A choice whose field is not said goes on from what was said before: "high and urgent" of one field is never both, and "not high
     * or urgent" rather means neither. Neither is taken as it stands.
     */
    private static function contradicts(Parsed $list, Parsed $next, string $group): bool
    {
        $said = is_array($next->json) ? $next->json : [];
        if (($said[''] ?? null) !== ImpliedChoice::MARK) {
            return false;
        }
        foreach (is_array($list->json) ? $list->json : [] as $part) {
            $isSame = is_array($part) && ($part['field'] ?? null) === ($said['field'] ?? null);
            if ($isSame && (self::kind($part) !== self::kind($said) || ($group === 'all') === (self::kind($said) === 'is'))) {
                return true;
            }
        }

        return false;
    }

    /** @return list<array{int, int}> places behind a word that joins, with their cost */
    private static function behind(Typed $typed, int $at, string $word, string $kind): array
    {
        $places = [];
        foreach ([$word, ...self::ALSO_JOINED[$kind]] as $nth => $words) {
            $end = $typed->words($at, $words, $nth === 0 ? 0 : 3);
            if ($end !== null) {
                $places[] = [$end, min(1, $nth)];
            }
        }

        return $places;
    }

    /** @return list<Parsed> */
    private static function term(Typed $typed, int $at, Scope $scope): array
    {
        return $typed->once("term:{$scope->type->name}", $at, static function () use ($typed, $at, $scope): array {
            $found = [];
            foreach (self::OPENED as $kind => $words) {
                $behind = $typed->words($at, $words);
                $open = $behind === null ? null : $typed->pattern($behind, '\(', '(', 0);
                foreach ($open === null ? [] : self::listed($typed, $open[1], $scope) as $list) {
                    $found[] = $list->as(['kind' => $kind, 'of' => $list->json]);
                }
            }
            $open = $typed->pattern($at, '\(', '(');
            foreach ($open === null ? [] : self::joined($typed, $open[1], $scope) as $inner) {
                $closed = $typed->pattern($inner->end, '\)', ')', 0);
                if ($closed !== null) {
                    $found[] = new Parsed($inner->json, $closed[1], $inner->cost);
                }
            }
            foreach (self::shapes() as $shape) {
                array_push($found, ...$shape->parse($typed, $at, $scope, []));
            }

            return Parsed::distinct($found);
        });
    }

    /** @return list<Parsed> what stands in brackets, parted by semicolons */
    private static function listed(Typed $typed, int $at, Scope $scope): array
    {
        $found = [];
        $open = array_map(static fn (Parsed $one): Parsed => $one->as([$one->json]), self::joined($typed, $at, $scope));
        while ($open !== []) {
            $longer = [];
            foreach ($open as $list) {
                $parts = is_array($list->json) ? array_values($list->json) : [];
                $closed = $typed->pattern($list->end, '\)', ')', 0);
                if ($closed !== null) {
                    $found[] = new Parsed($parts, $closed[1], $list->cost);
                }
                $next = $typed->pattern($list->end, ';', ';', 0);
                foreach ($next === null ? [] : self::joined($typed, $next[1], $scope) as $one) {
                    $longer[] = new Parsed([...$parts, $one->json], $one->end, $list->cost + $one->cost);
                }
            }
            $open = Parsed::distinct($longer);
        }

        return $found;
    }

    /** @return list<Shape> */
    private static function shapes(): array
    {
        return Kinds::once(self::class, static fn (): array => [
            ...Statements::shapes(),
            ...array_map(static fn (Operator $operator): Shape => $operator->shape(), array_values(Operators::all())),
        ]);
    }

    /** @return array<string, string> kinds of comparison by the kind whose opposite they are */
    private static function opposites(): array
    {
        $opposites = ['made_by' => 'not_made_by', 'not_made_by' => 'made_by'];
        foreach (Operators::all() as $kind => $operator) {
            if ($operator instanceof Opposite) {
                $opposites[$kind] = $operator->of();
                $opposites[$operator->of()] = $kind;
            }
        }

        return $opposites;
    }
}
