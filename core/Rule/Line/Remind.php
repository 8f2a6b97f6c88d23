<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Message\Address;
use VividLedger\Message\Channel;
use VividLedger\Message\Message;
use VividLedger\People\PersonSlot;
use VividLedger\People\Who;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Rule\Performance\Finder;
use VividLedger\Rule\Timing\Timings;
use VividLedger\Shape\Context;
use VividLedger\Shape\Gap;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Template\Template;
use VividLedger\Template\TemplateText;

/** Reminds a colleague of the record, inside the application: "Remind the owner: {subject} is due on {due}". */
final readonly class Remind implements FindsPeople, Line, Reaches
{
    public const LENGTH = 200;

    private function __construct(private Who $to, private Template $text)
    {
    }

    public static function kind(): string
    {
        return 'remind';
    }

    public static function shape(): Shape
    {
        return Shape::of(self::kind())->starts(['to' => ['kind' => 'owner'], 'text' => ''])->says('Remind {to}[ {text}]')->orSaid(
            'remind {to} {at}(:|,| to| that| of|) {text}',
            '(remind|ping|nudge|poke|prompt|alert) {to}[ (to|about|of|that|with|saying|:)] {text}',
            '(send|give|leave|write) [a ]reminder[ {text}] to {to}',
            '(send|give|leave|write|drop) {to} a reminder[ (to|about|of|that says|saying|:|called|titled)][ {text}]',
            '(send|give) {to} [the ]reminder {text}', '(send|give) a reminder to {to}[ (to|about|of|that says|saying|:)][ {text}]',
            '(send|give) a reminder[ (to|about|of|that says|saying)] {text} to {to}', 'remind {text} to {to}',
            'a reminder [{text} ]for {to}',
            'a reminder to {to}[ {text}]', '{to} (is|gets|should be) reminded[ (to|about|of|that)][ {text}]',
            '{to} gets a reminder[ {text}]', 'tell {to} to {text}', '{to} reminder[:] {text}',
        )->slot('to', new PersonSlot)->slot('text', new TemplateText(
            new Gap('of what', 'Write what the reminder says.'),
            'What the reminder says',
            most: self::LENGTH,
        ))->apart('at')->needs('text')->slot('at', Timings::slot());
    }

    public static function label(): string
    {
        return 'Remind';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);

        return $read === null ? null : new self($read->the('to', Who::class), $read->the('text', Template::class));
    }

    public function perform(ActionContext $performance): void
    {
        $found = Finder::find($this->to, $performance);
        $text = mb_substr($this->text->render($performance->view(), $performance->display, $performance->number()), 0, self::LENGTH);
        self::tell($performance, $found, $text);
    }

    /** Leaves a note for a person; where nobody was found, the entry says so. */
    public static function tell(ActionContext $performance, \VividLedger\People\Found $found, string $text): void
    {
        if ($found->person === null) {
            $performance->failed('The reminder', "there is nobody to remind: {$found->path}");

            return;
        }
        $performance->send(
            new Message(
                channel: Channel::App, to: [new Address($found->person->name, '', $found->person->id)], cc: [], replyTo: null,
                subject: $text, html: '', text: $text, path: $found->path, missing: [],
            ),
        );
    }

    public function people(): array
    {
        return ['to' => $this->to];
    }
}
