<?php

declare(strict_types=1);

namespace App\Http\Outbound;

use Illuminate\Foundation\Http\FormRequest;

final class CallsAgainInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'endpoint' => 'required|string|max:60',
        ];
    }
}
