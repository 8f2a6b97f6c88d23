<?php

declare(strict_types=1);

namespace App\Demo;

use App\Models\Inbound\Hook;
use App\Work\Inbound\WebhookIngest;
use StandardWebhooks\Webhook;

/** In the last days the website posts what people asked there: one of them mistyped the address, and is to be mended by hand. */
final readonly class Enquiries
{
    private const ASKED = [
        [
            'company' => 'Pebble & Fern Hotel', 'contact' => ['email' => 'office@pebblefern.example', 'phone' => '+49 30 5550 100'],
            'message' => 'We open in March and would like green in the lobby and on two floors.',
        ],
        [
            'company' => 'Slate Offices', 'contact' => ['email' => 'front.desk at slate.example'],
            'message' => 'Please ring us about the plants of our new house.',
        ],
        [
            'company' => 'Pebble & Fern Hotel', 'contact' => ['email' => 'office@pebblefern.example', 'phone' => '+49 30 5550 101'],
            'message' => 'We open in March and would like green in the lobby and on two floors. The other number is better.',
        ],
    ];

    private const HOURS_APART = 9;

    public function __construct(private WebhookIngest $door)
    {
    }

    public function begin(Stage $stage): void
    {
        foreach (self::ASKED as $nth => $asked) {
            $stage->at($stage->end - (count(self::ASKED) - $nth) * self::HOURS_APART * 3600, function () use ($nth, $asked): void {
                $this->post("enquiry-{$nth}", (string) json_encode($asked, JSON_UNESCAPED_SLASHES));
            });
        }
    }

    private function post(string $key, string $text): void
    {
        $hook = Hook::query()->first();
        if ($hook !== null) {
            $now = time();
            $this->door->take($hook, $text, [
                'webhook-id' => $key, 'webhook-timestamp' => (string) $now,
                'webhook-signature' => (new Webhook($hook->secret))->sign($key, $now, $text),
            ]);
        }
    }
}
