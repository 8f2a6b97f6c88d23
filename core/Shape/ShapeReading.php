<?php

declare(strict_types=1);

namespace VividLedger\Shape;

use Closure;

/** One reading of an object of a rule file along its sentence: what stands at each place, and the words on the page. */
final class ShapeReading
{
    private readonly Filled $filled;

    private readonly Scope $scope;

    /** The first words of the sentence, until something else stands behind them. */
    private ?string $head;

    /**
     * @param  array<string, Slot>  $slots
     * @param  list<string>  $needed  keys that are read also where the sentence could do without them
     * @param  list<string>  $apart  keys that are read and worded elsewhere
     * @param  ?Closure(Context, Node): Editor  $opened  how the kind is chosen by the first words
     */
    public function __construct(
        private readonly Context $context,
        private readonly Node $node,
        private readonly array $slots,
        private readonly array $needed,
        private readonly array $apart,
        private readonly ?Closure $opened,
    ) {
        $this->filled = new Filled;
        $this->scope = $context->scope();
        $this->head = $opened === null ? null : '';
    }

    public function of(Sentence $sentence): Filled
    {
        $this->walk($sentence);
        $this->end();

        return $this->filled;
    }

    private function walk(Sentence $sentence): void
    {
        foreach ($sentence->parts as $part) {
            if (is_string($part)) {
                $this->say($part);
            } elseif ($part instanceof Place) {
                $this->place($part->key);
            } else {
                $this->piece($part->way());
            }
        }
    }

    /** A piece that is not said is left out, unless it is needed; what it could say is offered. */
    private function piece(Sentence $way): void
    {
        $keys = array_keys($way->places());
        if (array_intersect($keys, $this->apart) !== []) {
            return;
        }
        $json = is_array($this->node->raw) ? $this->node->raw : [];
        if ($way->isSaidOf($this->slots, $json) || array_intersect($keys, $this->needed) !== []) {
            $this->walk($way);

            return;
        }
        foreach ($keys as $key) {
            $slot = $this->slots[$key];
            $at = $this->at($key, $slot);
            if ($slot instanceof Worded) {
                $this->end();
                $slot->more($this->context, $at, $this->filled);
            }
        }
    }

    private function place(string $key): void
    {
        if (in_array($key, $this->apart, true)) {
            return;
        }
        $slot = $this->slots[$key];
        $at = $this->at($key, $slot);
        if ($slot instanceof Worded) {
            $this->end();
            $this->filled->put($key, $slot->read($this->context, $at, $this->filled));
        } else {
            $this->filled->put($key, $at->raw);
            $this->say((string) $slot->print($at->raw, $this->scope, []));
        }
    }

    /** The place in the file that a slot stands for; one that is spread stands for the object itself. */
    private function at(string $key, Slot $slot): Node
    {
        if ($key === '' || $slot instanceof MultiKeySlot) {
            return $this->node;
        }

        return $this->node->child($key);
    }

    private function say(string $text): void
    {
        if ($this->head !== null) {
            $this->head .= $text;
        } elseif (trim($text) !== '') {
            $this->context->glue(trim($text));
        }
    }

    private function end(): void
    {
        $head = trim($this->head ?? '');
        if ($head !== '') {
            $editor = $this->opened === null ? null : ($this->opened)($this->context, $this->node);
            $this->context->word($head, WordRole::Value, $this->node->at, $editor);
        }
        $this->head = null;
    }
}
