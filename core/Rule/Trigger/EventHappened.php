<?php

declare(strict_types=1);

namespace VividLedger\Rule\Trigger;

use VividLedger\Facts\Facts;
use VividLedger\Record\Change;
use VividLedger\Record\EventKind;
use VividLedger\Record\Fold;
use VividLedger\Shape\Context;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot;
use VividLedger\Shape\Slot\Always;

/** A comment or a file arrived, or a task was done; optionally only one whose text has certain words in it, or from somebody. */
abstract readonly class EventHappened extends OwnTrigger
{
    final public function __construct(string $type, public string $about, public string $from = '')
    {
        parent::__construct($type);
    }

    abstract protected static function event(): EventKind;

    /** @return list<string> other ways in which people say it */
    abstract protected static function otherwise(): array;

    /** What names whom it has to be from, after the word "from"; null where all are from within. */
    protected static function sender(): ?Slot
    {
        return null;
    }

    public static function kind(): string
    {
        return static::event()->value;
    }

    public static function label(): string
    {
        return static::event()->label();
    }

    public static function shape(): Shape
    {
        $sender = static::sender();
        $from = $sender === null ? '' : '[ from {from}]';
        $shape = Shape::of(static::kind())->opens(Triggers::chooser(...))->apart('subject', 'byHand')
            ->says('{subject} '.static::event()->label()."{$from}[ that mentions {about}][, or by hand{byHand}]")
            ->orSaid(
                ...array_map(
                    static fn (string $said): string => "{$said}{$from}[ (that mentions|mentioning|about|with|containing) {about}]",
                    static::otherwise(),
                ),
            )
            ->slot('subject', new Subject)->slot('byHand', new Always);

        return ($sender === null ? $shape : $shape->slot('from', $sender))->slot('about', new WordsAbout);
    }

    public static function read(Context $context, Node $node): ?static
    {
        $read = static::shape()->read($context, $node);

        return $read === null ? null : new static(
            $context->type->name,
            $read->text('about'),
            static::sender() === null ? '' : $read->text('from'),
        );
    }

    public function watch(): Watch
    {
        return new Watch($this->type, events: [static::event()]);
    }

    public function accepts(Change $change, Facts $facts): bool
    {
        return $change->event?->kind === static::event()
            && self::has($change->event->text, $this->about) && self::has($change->event->from, $this->from);
    }

    public function asksNoMore(): bool
    {
        return $this->about === '' && $this->from === '';
    }

    public function wanted(): string
    {
        return static::label().($this->from === '' ? '' : " from “{$this->from}”")
            .($this->about === '' ? '' : " that mentions “{$this->about}”");
    }

    /** @return array{OpeningKind, string} how a rehearsal begins with it, and the text it has where the rule asks for none */
    abstract protected static function played(): array;

    public function opening(Proposal $proposal): Opening
    {
        [$kind, $text] = static::played();

        return $proposal->opening($kind, $this->about === '' ? $text : $this->about, $this->from);
    }

    private static function has(string $text, string $words): bool
    {
        return $words === '' || str_contains(Fold::text($text), Fold::text($words));
    }
}
