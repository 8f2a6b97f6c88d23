<?php

declare(strict_types=1);

namespace App\Http;

use App\Models\Person;
use App\Store\Languages;
use Closure;
use Illuminate\Contracts\Auth\Factory;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;
use VividLedger\Words\Words;

/** Answers in the language that somebody chose, or else in one that their browser asks for. */
final readonly class SpeaksTheirLanguage
{
    public function __construct(private Languages $languages, private Factory $doors)
    {
    }

    /** @param  Closure(Request): Response  $next */
    public function handle(Request $request, Closure $next): Response
    {
        $person = $this->doors->guard('sanctum')->user();
        $this->languages->speak(self::of($request, $person instanceof Person ? $person : null));
        try {
            return $next($request);
        } finally {
            $this->languages->speak(Words::OWN);
        }
    }

    /** The code of the language in which a person is answered. */
    public static function of(Request $request, ?Person $person): string
    {
        return $person->language ?? $request->getPreferredLanguage(Languages::CODES) ?? Words::OWN;
    }
}
