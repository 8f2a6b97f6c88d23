<script lang="ts">
    import { Input, Select } from 'flowbite-svelte';
    import { untrack } from 'svelte';
    import { said, send, type Answered } from '../../api/client';
    import Confirm from '../../parts/Confirm.svelte';
    import Area from '../../parts/fields/Area.svelte';
    import { session } from '../../state/session.svelte';
    import { say } from '../../state/words';
    import { addressOf, type Operation } from './operations';

    /* One thing that programs can ask: what it takes, and what comes when it is sent. */
    let { operation, tone }: { operation: Operation; tone: string } = $props();
    const LONGEST = 60_000;
    const READS = ['GET'];
    let given = $state<Record<string, string>>(
        untrack(() => Object.fromEntries(operation.parameters.map((one) => [one.name, one.name === 'type' ? firstType() : '']))),
    );
    let body = $state(untrack(() => operation.body ?? ''));
    let answered = $state.raw<Answered | null>(null);
    let problem = $state('');
    let busy = $state(false);
    let asking = $state(false);
    const address = $derived(addressOf(operation, given));
    const isWhole = $derived(operation.parameters.every((one) => one.in !== 'path' || given[one.name]?.trim()));
    const command = $derived(
        [
            `curl -X ${operation.method} '${location.origin}${address}'`,
            `  -H 'Authorization: Bearer …' -H 'Accept: application/json'`,
            ...(operation.body === null ? [] : [`  -H 'Content-Type: application/json' -d '${body.replaceAll("'", "'\\''")}'`]),
        ].join(' \\\n'),
    );
    const shown = $derived.by(() => {
        if (!answered) return '';
        try {
            return JSON.stringify(JSON.parse(answered.text), null, 2).slice(0, LONGEST);
        } catch {
            return answered.text.slice(0, LONGEST);
        }
    });

    function firstType(): string {
        return session.schema?.types[0]?.name ?? '';
    }

    function go(event: SubmitEvent) {
        event.preventDefault();
        problem = '';
        if (operation.body !== null && body.trim()) {
            try {
                JSON.parse(body);
            } catch (thrown) {
                problem = `This is no JSON: ${said(thrown)}`;
                return;
            }
        }
        if (READS.includes(operation.method)) void ask();
        else asking = true;
    }

    async function ask() {
        asking = false;
        busy = true;
        try {
            answered = await send(operation.method, address, operation.body === null ? undefined : body);
        } catch (thrown) {
            problem = said(thrown);
        }
        busy = false;
    }
</script>

<header>
    <h2 class="title text-[19px]! break-all">
        <span class="figures tone-{tone}">{operation.method}</span> <span class="figures">{operation.path}</span>
    </h2>
    <p class="sub">{operation.description}</p>
</header>
<div class="scroll px-6 py-4 text-[13px]">
    <form onsubmit={go} class="grid gap-3">
        {#each operation.parameters as parameter (parameter.name)}
            <label class="grid grid-cols-[130px_1fr] items-baseline gap-3">
                <span class="figures text-[12.5px] break-all">{parameter.name}{parameter.required ? ' *' : ''}</span>
                <span>
                    {#if parameter.name === 'type'}<Select placeholder="" bind:value={given[parameter.name]}
                            >{#each session.schema?.types ?? [] as type (type.name)}<option value={type.name}>{type.name}</option
                                >{/each}</Select
                        >
                    {:else if parameter.schema?.enum}<Select placeholder="" bind:value={given[parameter.name]}
                            ><option value=""></option>{#each parameter.schema.enum as value (value)}<option {value}>{value}</option
                                >{/each}</Select
                        >
                    {:else}<Input bind:value={given[parameter.name]} required={parameter.required} />{/if}
                    {#if parameter.description}<span class="mini block">{parameter.description}</span>{/if}
                </span>
            </label>
        {/each}
        {#if operation.body !== null}
            <label class="grid gap-1"
                ><span class="text-ink-2">What is sent, in JSON</span>
                <Area bind:value={body} rows={Math.min(14, body.split('\n').length + 1)} class="figures text-[12.5px]" spellcheck="false" />
            </label>
        {/if}
        {#if problem}<p class="callout bad" role="alert">{problem}</p>{/if}
        <div class="flex flex-wrap items-center gap-3">
            <button type="submit" class="btn go" disabled={busy || !isWhole}>Send</button>
            <span class="mini figures break-all">{operation.method} {address}</span>
        </div>
    </form>
    {#if answered}
        <h2 class="mt-5 mb-1 text-[14px]!" aria-live="polite">
            <span class="figures tone-{answered.status < 400 ? 'fern' : 'madder'}">{answered.status}</span>
            <span class="mini figures ml-2">{answered.milliseconds} ms</span>
        </h2>
        <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
        <pre class="figures shown" tabindex="0">{shown || say('(nothing)')}</pre>
    {:else if operation.answer}<p class="mini mt-4">It answers with <span class="figures">{operation.answer}</span>.</p>{/if}
    <details class="mt-4">
        <summary class="link cursor-pointer">From a program</summary>
        <pre class="figures shown mt-2">{command}</pre>
    </details>
</div>
{#if asking}
    <Confirm title="Send it?" go="Send it" {busy} onconfirm={ask} onclose={() => (asking = false)}>
        <p>It does what it says, with the records of your company and in your name: rules answer it, and it stands in the ledger.</p>
    </Confirm>
{/if}
