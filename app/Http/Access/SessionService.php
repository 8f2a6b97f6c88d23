<?php

declare(strict_types=1);

namespace App\Http\Access;

use App\Http\Middleware\SpeaksTheirLanguage;
use App\Http\People\PreferencesShape;
use App\Models\People\Person;
use App\Store\Access\AccessEntries;
use App\Store\DomainError;
use App\Store\HouseClock;
use App\Store\RefusedFor;
use App\Store\Setup\Company;
use App\Store\Types\SchemaStore;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Auth;
use VividLedger\Record\Value;
use VividLedger\Rights\Duty;
use VividLedger\Words\Words;

/** Lets somebody in, in a session, and says who it is. */
final readonly class SessionService
{
    public function __construct(private Company $company, private HouseClock $clock, private AccessEntries $entries,
        private SchemaStore $schemas, private Request $request)
    {
    }

    /** @param  string  $how  "password", "code" or "link", for the ledger */
    public function letIn(Request $request, Person $person, string $how): Me
    {
        Auth::guard('web')->login($person);
        $request->session()->regenerate();
        $this->entries->write('signed_in', $person->id, ['person' => $person->id, 'how' => $how]);

        return $this->me($person->refresh());
    }

    /** @throws DomainError for a script, which brings a token */
    public static function mustHaveSession(Request $request): void
    {
        if (! $request->hasSession()) {
            throw new DomainError(
                'no_session',
                Words::say('Only the application’s own pages sign in this way. A script brings a token: “Authorization: Bearer …”.'),
                RefusedFor::Unreadable,
            );
        }
    }

    public function me(Person $person): Me
    {
        return new Me(
            $person->id, $person->handle, $person->name, $person->email, $person->role, $this->company->name(),
            $this->company->zone()->getName(),
            Value::instantText($this->clock->now()), $person->mayWork(), $person->may(Duty::WriteRules),
            $person->may(Duty::DoAllTasks),
            (int) config('limits.file_bytes'), config('ledger.mail.room') === true && $person->may(Duty::SeeMailRoom),
            $person->second_factor !== null,
            count($person->recovery_codes ?? []),
            $person->rights()->label,
            array_column($person->rights()->duties, 'value'),
            $person->rights()->readsEverything($this->schemas->schema()),
            $person->language,
            SpeaksTheirLanguage::of($this->request, $person),
            PreferencesShape::of($person),
        );
    }
}
