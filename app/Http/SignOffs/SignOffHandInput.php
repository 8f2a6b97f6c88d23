<?php

declare(strict_types=1);

namespace App\Http\SignOffs;

use App\Http\PersonGiven;
use Illuminate\Foundation\Http\FormRequest;

final class SignOffHandInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['to' => ['required', new PersonGiven], 'comment' => 'nullable|string|max:2000'];
    }
}
