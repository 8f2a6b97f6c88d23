<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use App\Models\Outbound\AddressMark;
use App\Store\HouseClock;
use App\Work\Inbound\ReplyAddress;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Routing\Controller;

/** Takes an address off chases: at once when a mail program posts (RFC 8058), and at a press when a person opens the link. */
final class UnsubscribeController extends Controller
{
    public function show(string $token, Request $request): Response
    {
        $address = ReplyAddress::unsubscribing($token);

        return response(view('unsubscribe', [
            'address' => $address, 'action' => "/unsubscribe/{$token}", 'isDone' => $address !== null && self::isOff($address),
            // Whose address it is says nothing of a language, their browser does.
            'language' => (string) $request->getPreferredLanguage(['en', 'de']),
        ]), $address === null ? 404 : 200);
    }

    public function store(string $token, HouseClock $clock, Request $request): Response
    {
        $address = ReplyAddress::unsubscribing($token);
        if ($address !== null) {
            AddressMark::set($address, AddressMark::UNSUBSCRIBED, $clock->now(), 'They asked for it by the link of a letter.');
        }

        return $this->show($token, $request);
    }

    private static function isOff(string $address): bool
    {
        return in_array(AddressMark::UNSUBSCRIBED, AddressMark::among([$address])[$address] ?? [], true);
    }
}
