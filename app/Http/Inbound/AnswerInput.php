<?php

declare(strict_types=1);

namespace App\Http\Inbound;

use Illuminate\Foundation\Http\FormRequest;

final class AnswerInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['text' => 'present|nullable|string'];
    }
}
