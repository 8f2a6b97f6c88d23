<?php

declare(strict_types=1);

namespace App\Http\Setup;

use App\Store\Setup\StarterSets;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

final class CompanyToOpenInput extends FormRequest
{
    private const TIME = '/^([01]\d|2[0-3]):[0-5]\d$/D';

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'company' => 'required|string|max:120', 'timeZone' => 'required|string|max:64',
            'from' => ['required', 'string', 'regex:'.self::TIME], 'to' => ['required', 'string', 'regex:'.self::TIME],
            'days' => 'required|array|list|max:7', 'days.*' => 'integer|between:1,7|distinct',
            'sets' => 'present|array|list|max:20', 'sets.*' => ['string', Rule::in(array_keys(StarterSets::all()))],
            'name' => 'required|string|max:120', 'email' => 'required|email|max:190', 'password' => 'required|string|max:1000',
        ];
    }

    /**
     * @return array{company: string, timeZone: string, from: string, to: string, days: list<int>, sets: list<string>, name: string,
     *     email: string, password: string}
     */
    public function given(): array
    {
        $given = $this->validated();

        return [
            'company' => (string) $given['company'], 'timeZone' => (string) $given['timeZone'], 'from' => (string) $given['from'],
            'to' => (string) $given['to'], 'days' => array_values(array_map(intval(...), $given['days'])),
            'sets' => array_values(array_map(strval(...), $given['sets'])), 'name' => (string) $given['name'],
            'email' => (string) $given['email'], 'password' => (string) $given['password'],
        ];
    }
}
