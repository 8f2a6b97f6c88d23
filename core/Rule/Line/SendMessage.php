<?php

declare(strict_types=1);

namespace VividLedger\Rule\Line;

use VividLedger\Message\Channel;
use VividLedger\Message\Message;
use VividLedger\Record\Language;
use VividLedger\Rule\Letter\ChannelSlot;
use VividLedger\Rule\Letter\Letter;
use VividLedger\Rule\Letter\LetterName;
use VividLedger\Rule\Letter\LetterText;
use VividLedger\Rule\Letter\WrittenOrKept;
use VividLedger\Rule\Performance\ActionContext;
use VividLedger\Rule\Recipient\Recipients;
use VividLedger\Rule\Recipient\RecipientsSlot;
use VividLedger\Shape\Context;
use VividLedger\Shape\Gap;
use VividLedger\Shape\Node;
use VividLedger\Shape\Shape;
use VividLedger\Shape\Slot\Keyed;
use VividLedger\Shape\Slot\Quoted;
use VividLedger\Template\RichText;

/** Sends a message: by e-mail, as a text message, or inside the application; from a template or written in the line. */
final readonly class SendMessage implements Line, Reaches
{
    private function __construct(
        private Channel $channel,
        private Recipients $to,
        private Recipients $cc,
        private Recipients $replyTo,
        private Letter $letter,
    ) {
    }

    public static function kind(): string
    {
        return 'send_message';
    }

    public static function shape(): Shape
    {
        $further = '[, with a copy to {cc}][, answers to {replyTo}]';

        return Shape::of(self::kind())->starts(['to' => [], 'subject' => '', 'body' => ''])
            ->says("Send {to} {channel} with the letter {letter}{$further}")
            ->says("Send {to} {channel}[ about {subject}][ saying {body}]{$further}")
            ->orSaid(
                '(send|mail|e-mail|email|write|write to) {to} [{channel} ][with |using ][the |our |a ][letter |template |letter '
                    ."template |e-mail template ]{known}[ by {channel}]{$further}",
                '(send|send out|mail|e-mail|email|post) [the |our |a |an ][letter |template |mail |e-mail |email ]{known} to {to}[ by '
                    ."{channel}]{$further}",
                "[the ](letter|template) {known} to {to}[ by {channel}]{$further}",
                "use [the ](letter|template) {known} (to write to|to e-mail|to email|for|to mail) {to}{$further}",
                "(write|send) {channel} to {to}[ (about|on|with the subject)] {subject}[,:| saying] {body}{$further}",
                '{channel} to {to}[,] [(about|on|with the subject|subject) ]{subject}[,] [and ][saying|text|with the text|:] {body}'
                    .$further,
                "send [{channel} ]to {to} (with|using) [the ][letter |template ]{known}{$further}",
                '(e-mail|email|mail|write to|write) {to}[ (about|on|with the subject|subject)] {subject}[,] [and ](saying|with the '
                    ."text|that says|with|text|body|:) {body}{$further}",
                "(e-mail|email|mail|write to|write) {to}[,] (saying|that|with the text) {body}{$further}",
                "(e-mail|email|mail|write to|write) {to} (about|on|with the subject) {subject}{$further}",
                'send {channel} to {to}[ (about|on|with the subject|called|titled) {subject}][ [and ](saying|with the text|that '
                    ."says|:) {body}]{$further}",
                '(send|write|give|post) {to} {channel}[ (about|on|with the subject|called|titled) {subject}][,][ [and ](saying|'
                    ."with the text|that says|:|with) {body}]{$further}",
            )
            ->orSaidWith(
                ['channel' => Channel::App->value],
                '(notify|inform|tell|let) {to}[ know]( about| of|) {subject}[,] [and ](saying|with the text|that says|with|text|:) {body}',
                '(notify|inform|tell) {to} (that|saying) {body}', '(notify|inform|tell) {to} about {subject}',
                '(send|give|leave|write) {to} a (note|notification|message in the application)[ (about|on) {subject}][ (saying|'
                    .'that says|:) {body}]',
                '(send|leave|write) a (note|notification|message in the application) (to|for) {to}[ (about|on) {subject}][ (saying|'
                    .'that says|:) {body}]',
            )
            ->orSaidWith(
                ['channel' => Channel::Sms->value],
                '(text|sms) {to}[ (saying|that|:)] {body}', '(text|sms) {to} about {subject}[ saying {body}]',
            )
            ->shows("Send {to} {channel} {mail}{$further}")
            ->slot('to', new RecipientsSlot(1))
            ->slot('cc', new RecipientsSlot(gap: new Gap('', '', '+ copy'), isOfMail: true))
            ->slot('replyTo', new RecipientsSlot(0, 1, new Gap('', '', '+ answers to'), isOfMail: true))
            ->slot('mail', new WrittenOrKept)
            ->may('channel', 'letter')
            ->slot('channel', new ChannelSlot)->slot('letter', new Quoted)->slot('known', new Keyed('letter', new LetterName))
            ->slot('subject', new Quoted(200, 0))->slot('body', new LetterText);
    }

    public static function label(): string
    {
        return 'Send a message';
    }

    public static function read(Context $context, Node $node): ?self
    {
        $read = self::shape()->read($context, $node);
        $nobody = new Recipients([]);

        return $read === null ? null : new self(
            $read->the('channel', Channel::class),
            $read->the('to', Recipients::class),
            $read->any('cc', Recipients::class) ?? $nobody,
            $read->any('replyTo', Recipients::class) ?? $nobody,
            $read->the('mail', Letter::class),
        );
    }

    /** The message as it would read, whether or not there is somebody to get it. */
    public function preview(ActionContext $performance): Message
    {
        $reached = $this->to->reach($performance, $this->channel);
        $to = $this->channel === Channel::Email ? $reached->addresses : array_slice($reached->addresses, 0, 1);

        return $this->rendered(
            $performance,
            $to,
            $this->cc->isEmpty() ? [] : $this->cc->reach($performance, $this->channel)->addresses,
            $this->replyTo->isEmpty() ? null : ($this->replyTo->reach($performance, $this->channel)->addresses[0] ?? null),
            $reached->path,
        );
    }

    public function perform(ActionContext $performance): void
    {
        $reached = $this->to->reach($performance, $this->channel);
        if ($reached->addresses === []) {
            $performance->failed('The '.$this->channel->label(), "there is nobody to send it to: {$reached->path}");

            return;
        }
        if (! $performance->mayWrite($reached->addresses, 'The '.$this->channel->label())) {
            return;
        }
        // A mail is one letter to all; what lands in a pocket or in the application is each one's own.
        $letters = $this->channel === Channel::Email ? [$reached->addresses] : array_map(
            static fn ($address): array => [$address],
            $reached->addresses,
        );
        $cc = $this->cc->isEmpty() ? [] : $this->cc->reach($performance, $this->channel)->addresses;
        $replyTo = $this->replyTo->isEmpty() ? null : ($this->replyTo->reach($performance, $this->channel)->addresses[0] ?? null);
        foreach ($letters as $to) {
            $performance->send($this->rendered($performance, $to, $cc, $replyTo, $reached->path));
        }
    }

    /**
     * @param  list<\VividLedger\Message\Address>  $to
     * @param  list<\VividLedger\Message\Address>  $cc
     */
    private function rendered(ActionContext $performance, array $to, array $cc, ?\VividLedger\Message\Address $replyTo,
        string $path): Message
    {
        // A letter to several is written in the language of the first who is not one of us.
        $language = Language::English;
        foreach ($to as $address) {
            if ($address->record !== null) {
                $language = $address->language;

                break;
            }
        }
        $view = $performance->view();
        $display = $performance->display->in($language);
        $html = $this->letter->html($view, $display, $performance->number());

        return new Message(
            channel: $this->channel, to: $to, cc: $cc, replyTo: $replyTo,
            subject: $this->letter->subject($view, $display, $performance->number()), html: $this->channel === Channel::Sms ? '' : $html,
            text: RichText::plain($html), path: $path, missing: $this->letter->missing($view),
        );
    }
}
