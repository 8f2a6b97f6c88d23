<?php

declare(strict_types=1);

namespace VividLedger\Shape;

use Closure;

/**
 * What a kind says of itself, once: its name in a rule file, the sentence that it is, other ways in which people say it, and
 * what stands at each place. Printing and understanding are made of it.
 */
final class Shape implements Slot
{
    /** @var list<array{Sentence, array<string, mixed>}> sentences that are printed, with what else the object then holds */
    private array $says = [];

    /** @var list<array{Sentence, array<string, mixed>}> other ways in which people say it */
    private array $said = [];

    /** @var list<array{Sentence, array<string, mixed>}> how the page says it, where that is shorter than what is printed */
    private array $shown = [];

    /** @var array<string, Slot> */
    private array $slots = [];

    private ?string $grows = null;

    /** @var list<string> keys that a finished rule has, although the sentence can do without them */
    private array $needs = [];

    /** @var list<string> keys that the page has words for also where the file has nothing */
    private array $always = [];

    /** @var list<string> keys that are read and worded elsewhere */
    private array $apart = [];

    /** @var ?Closure(Context, Node): Editor how the kind itself is chosen, by the words that the sentence begins with */
    private ?Closure $opened = null;

    /** @var array<string, mixed>|Closure(Context): array<string, mixed> what a new one holds to begin with */
    private array|Closure $starts = [];

    /** @var list<string> keys that go without saying when they are left out */
    private array $may = [];

    private function __construct(public readonly string $kind)
    {
    }

    /** @param  string  $kind  its name in a rule file; empty for what needs none */
    public static function of(string $kind = ''): self
    {
        return new self($kind);
    }

    /** @param  array<string, mixed>  $with  what the object holds besides, when it is said so */
    public function says(string $sentence, array $with = []): self
    {
        $this->says[] = [Sentence::of($sentence), $with];

        return $this;
    }

    /** @param  array<string, mixed>  $with  what the object holds besides, when the page says it so */
    public function shows(string $sentence, array $with = []): self
    {
        $this->shown[] = [Sentence::of($sentence), $with];

        return $this;
    }

    public function orSaid(string ...$sentences): self
    {
        foreach ($sentences as $sentence) {
            $this->said[] = [Sentence::of($sentence), []];
        }

        return $this;
    }

    /** @param  array<string, mixed>  $with */
    public function orSaidWith(array $with, string ...$sentences): self
    {
        foreach ($sentences as $sentence) {
            $this->said[] = [Sentence::of($sentence), $with];
        }

        return $this;
    }

    public function slot(string $key, Slot $slot): self
    {
        $this->slots[$key] = $slot;

        return $this;
    }

    public function needs(string ...$keys): self
    {
        $this->needs = [...$this->needs, ...array_values($keys)];

        return $this;
    }

    /**
     * The words it begins with are those by which the kind is chosen.
     *
     * @param  Closure(Context, Node): Editor  $editor
     */
    public function opens(Closure $editor): self
    {
        $this->opened = $editor;

        return $this;
    }

    /** @param  array<string, mixed>|Closure(Context): array<string, mixed>  $json  what a new one holds to begin with, besides its kind */
    public function starts(array|Closure $json): self
    {
        $this->starts = $json;

        return $this;
    }

    /**
     * What a new one of the kind is. What stood there before and can stand here too stays.
     *
     * @param  ?Context  $context  null where nothing of the company is to be in it
     * @return array<string, mixed>
     */
    public function begun(?Context $context = null, ?Node $before = null): array
    {
        $begun = $this->kind === '' ? [] : ['kind' => $this->kind];
        if ($context === null) {
            return $begun + (is_array($this->starts) ? $this->starts : []);
        }
        $scope = $context->scope();
        $starts = $this->starts instanceof Closure ? ($this->starts)($context) : $this->starts;
        $old = is_array($before?->raw) ? $before->raw : [];
        foreach ($this->slots as $key => $slot) {
            if (isset($old[$key]) && ! $slot instanceof MultiKeySlot && $slot->print($old[$key], $scope, $begun) !== null) {
                $begun[$key] = $old[$key];
            }
        }

        return $begun + $starts;
    }

    public function always(string ...$keys): self
    {
        $this->always = [...$this->always, ...array_values($keys)];

        return $this;
    }

    public function apart(string ...$keys): self
    {
        $this->apart = [...$this->apart, ...array_values($keys)];

        return $this;
    }

    public function may(string ...$keys): self
    {
        $this->may = [...$this->may, ...array_values($keys)];

        return $this;
    }

    /** @param  array<string, Slot>  $slots */
    public function takes(array $slots): self
    {
        $this->slots = $slots + $this->slots;

        return $this;
    }

    /** It goes on from its like: "the owner’s manager". Sentences that begin with this place are read behind what stands there. */
    public function growsOn(string $key): self
    {
        $this->grows = $key;

        return $this;
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        if (! is_array($json) || ($json['kind'] ?? '') !== $this->kind) {
            return null;
        }
        foreach ($this->says as [$sentence, $with]) {
            if (array_udiff_assoc($with, $json, static fn (mixed $one, mixed $other): int => $one === $other ? 0 : 1) !== []) {
                continue;
            }
            $covered = array_fill_keys(array_keys($with), true) + ['kind' => true];
            $text = $sentence->print($this->slots, $json, $scope, $covered);
            $left = array_diff_key(array_filter($json, static fn (mixed $value): bool => $value !== null), $covered);
            // What the sentence has no place for would be lost.
            if ($text !== null && $left === []) {
                return trim($text);
            }
        }

        return null;
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $found = [];
        $kind = $this->kind === '' ? [] : ['kind' => $this->kind];
        foreach ([$this->says, $typed->isLoose ? $this->said : []] as $cost => $sentences) {
            foreach ($sentences as [$sentence, $with]) {
                if ($this->grows === null || $sentence->first() !== $this->grows) {
                    array_push($found, ...$sentence->parse($typed, $at, $scope, $this->slots, $kind + $with, $cost));
                }
            }
        }

        return Parsed::distinct($found);
    }

    /**
     * What the sentence says behind its first place, where that can hold what is asked for: "is over". Where none can, the first.
     *
     * @param  Closure(Slot): bool  $fits
     */
    public function verb(Closure $fits): string
    {
        foreach ($this->says as [$sentence]) {
            $first = $sentence->first();
            if ($first !== null && $fits($this->slots[$first])) {
                return $sentence->words();
            }
        }

        return $this->says[0][0]->words();
    }

    /**
     * Reads an object of a rule file, and words it on the page as it is read.
     *
     * @return ?Filled null when something is unfinished or wrong, and the problem is noted
     */
    public function read(Context $context, Node $node): ?Filled
    {
        $node->kind();
        $json = is_array($node->raw) ? $node->raw : [];
        $sentence = self::saying($this->shown === [] ? $this->says : $this->shown, $json);
        $problems = $context->problems();
        $reading = new ShapeReading(
            context: $context, node: $node, slots: $this->slots, needed: [...$this->needs, ...$this->always], apart: $this->apart,
            opened: $this->opened,
        );
        $filled = $reading->of($sentence);

        return $context->problems() > $problems ? null : $filled;
    }

    /**
     * @param  list<array{Sentence, array<string, mixed>}>  $sentences
     * @param  array<mixed>  $json
     * @return Sentence the one that says it; where none does, the first
     */
    private static function saying(array $sentences, array $json): Sentence
    {
        foreach ($sentences as [$sentence, $with]) {
            if (array_udiff_assoc($with, $json, static fn (mixed $one, mixed $other): int => $one === $other ? 0 : 1) === []) {
                return $sentence;
            }
        }

        return $sentences[0][0];
    }

    public function schema(): array
    {
        $properties = $this->kind === '' ? [] : ['kind' => ['const' => $this->kind]];
        $constants = [];
        $required = null;
        foreach ($this->says as [$sentence, $with]) {
            $there = array_keys($with);
            foreach ($sentence->places() as $key => $isOptional) {
                $slot = $this->slots[$key];
                $properties += $slot instanceof MultiKeySlot ? $slot->properties() : ($key === '' ? [] : [$key => $slot->schema()]);
                if (! $isOptional) {
                    array_push($there, ...($slot instanceof MultiKeySlot ? $slot->required() : [$key]));
                }
            }
            foreach ($with as $key => $value) {
                $constants[$key][] = $value;
            }
            $required = $required === null ? $there : array_intersect($required, $there);
        }
        foreach ($constants as $key => $values) {
            $properties[$key] ??= $values === [true] ? ['const' => true] : ['enum' => array_values(array_unique($values, SORT_REGULAR))];
        }
        $needed = array_values(array_unique(array_diff([...($required ?? []), ...$this->needs], $this->may, [''])));

        return [
            'type' => 'object', ...($needed === [] ? [] : ['required' => $needed]), 'additionalProperties' => false,
            'properties' => $properties,
        ];
    }

    /** @return list<Parsed> what a piece grows to with the words behind it */
    public function grown(Parsed $seed, Typed $typed, Scope $scope): array
    {
        $found = [];
        $kind = $this->kind === '' ? [] : ['kind' => $this->kind];
        foreach ($this->grows === null ? [] : [$this->says, $typed->isLoose ? $this->said : []] as $cost => $sentences) {
            foreach ($sentences as [$sentence, $with]) {
                if ($sentence->first() === $this->grows) {
                    $json = $kind + $with + [(string) $this->grows => $seed->json];
                    array_push($found, ...$sentence->behind($typed, $seed->end, $scope, $this->slots, $json, $seed->cost + $cost));
                }
            }
        }

        return $found;
    }
}
