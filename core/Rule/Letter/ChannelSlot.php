<?php

declare(strict_types=1);

namespace VividLedger\Rule\Letter;

use VividLedger\Message\Channel;
use VividLedger\Shape\Context;
use VividLedger\Shape\Editor;
use VividLedger\Shape\Filled;
use VividLedger\Shape\Node;
use VividLedger\Shape\Offer;
use VividLedger\Shape\Scope;
use VividLedger\Shape\Slot\Labels;
use VividLedger\Shape\Typed;
use VividLedger\Shape\Worded;
use VividLedger\Shape\WordRole;
use VividLedger\Words\Words;

/** How a message goes: "an e-mail". Nothing in the file is an e-mail. */
final readonly class ChannelSlot implements Worded
{
    private const ALSO = [
        'email' => 'email', 'mail' => 'email', 'e-mail message' => 'email', 'email message' => 'email', 'letter' => 'email',
        'text' => 'sms',
        'SMS' => 'sms',
        'sms message' => 'sms',
        'note' => 'app',
        'notification' => 'app',
        'in-app message' => 'app',
        'in-app note' => 'app',
        'in app note' => 'app',
    ];

    /** @param  list<Channel>  $channels  those that are meant */
    public function __construct(private array $channels = [Channel::Email, Channel::Sms, Channel::App])
    {
    }

    public function print(mixed $json, Scope $scope, array $around): ?string
    {
        return ($json === null ? Channel::Email : Channel::tryFrom(is_string($json) ? $json : ''))?->one();
    }

    public function parse(Typed $typed, int $at, Scope $scope, array $around): array
    {
        $labels = [];
        foreach (Channel::cases() as $channel) {
            $labels[$channel->label()] = $channel->value;
        }

        return Labels::of($labels, self::ALSO)->parse($typed, $at, $scope, $around);
    }

    public function read(Context $context, Node $node, Filled $around): ?Channel
    {
        $channel = $node->raw === null ? Channel::Email : Channel::tryFrom($node->text() ?? '');
        $editor = Editor::choose('How it goes', fn (): array => array_map(
            // Where nothing stands it is an e-mail, and stays so when that is chosen.
            static fn (Channel $offered): Offer => new Offer($offered->one(), $offered->value, isChosen: $offered === $channel),
            $this->channels,
        ));
        if ($channel === null || ! in_array($channel, $this->channels, true)) {
            return $context->gap(
                'choose how',
                $node->at,
                $editor,
                'wrong_type',
                Words::say('A message goes by e-mail, as a text message, or inside the application.'),
            );
        }
        $context->word($channel->one(), WordRole::Value, $node->at, $editor);

        return $channel;
    }

    public function more(Context $context, Node $node, Filled $around): void
    {
    }

    public function schema(): array
    {
        return ['enum' => array_map(static fn (Channel $channel): string => $channel->value, $this->channels)];
    }
}
