<?php

declare(strict_types=1);

namespace App\Http\Setup;

use App\Http\PersonGiven;
use Illuminate\Foundation\Http\FormRequest;

final class CompanyInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['fallbackPersonId' => ['present', 'nullable', new PersonGiven]];
    }
}
