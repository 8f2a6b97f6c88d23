// Reads what the application writes, and what it reads, with libraries that are not ours: "node tests/Foreign/read.mjs WHAT <input".
import { readFileSync } from 'node:fs';

const input = readFileSync(0, 'utf8');

/** Every calendar of a file, with the zones that it brings along made known. */
async function calendars() {
    const { default: ICAL } = await import('ical.js');
    const parsed = ICAL.parse(input);
    const roots = (Array.isArray(parsed[0]) ? parsed : [parsed]).map((one) => new ICAL.Component(one));
    for (const root of roots) {
        for (const zone of root.getAllSubcomponents('vtimezone')) ICAL.TimezoneService.register(zone);
    }
    return { ICAL, roots };
}

const seconds = (time) => Math.round(time.toJSDate().getTime() / 1000);

const read = {
    async todos() {
        const { roots } = await calendars();
        return roots.flatMap((root) =>
            root.getAllSubcomponents('vtodo').map((todo) => {
                const [due, start, length] = ['due', 'dtstart', 'duration'].map((name) => todo.getFirstPropertyValue(name));
                const at = due ?? (start && length ? start.clone() : null);
                if (!due && at) at.addDuration(length);
                return { uid: todo.getFirstPropertyValue('uid'), due: at ? seconds(at) : null, isDay: at?.isDate ?? false };
            }),
        );
    },
    async days() {
        const { ICAL, roots } = await calendars();
        const days = {};
        for (const root of roots) {
            const events = root.getAllSubcomponents('vevent').map((event) => new ICAL.Event(event));
            const cancelled = (event) => event.component.getFirstPropertyValue('status') === 'CANCELLED';
            for (const event of events.filter((one) => !one.isRecurrenceException())) {
                if (cancelled(event)) continue;
                for (const other of events) if (other.isRecurrenceException() && other.uid === event.uid) event.relateException(other);
                const every = event.isRecurring()
                    ? event.iterator()
                    : {
                          next: (() =>
                              (
                                  (once) => () =>
                                      once.pop()
                              )([event.startDate]))(),
                      };
                for (let at = every.next(), count = 0; at && at.year <= 2036 && count < 4000; at = every.next(), count++) {
                    const { item, startDate, endDate } = event.getOccurrenceDetails(at);
                    if (cancelled(item)) continue;
                    const day = startDate.clone();
                    const key = () => [day.year, day.month, day.day].map((part) => String(part).padStart(2, '0')).join('-');
                    do {
                        days[key()] = item.summary;
                        day.addDuration(ICAL.Duration.fromSeconds(86400));
                    } while (day.compare(endDate) < 0);
                }
            }
        }
        return days;
    },
    async feed() {
        const { roots } = await calendars();
        return roots.flatMap((root) =>
            root.getAllSubcomponents().map((one) => ({
                kind: one.name,
                uid: one.getFirstPropertyValue('uid'),
                stamp: seconds(one.getFirstPropertyValue('dtstamp')),
                due: one.getFirstProperty('due') ? seconds(one.getFirstPropertyValue('due')) : null,
                summary: one.getFirstPropertyValue('summary'),
                url: one.getFirstPropertyValue('url'),
            })),
        );
    },
    async csv() {
        const { default: Papa } = await import('papaparse');
        const { data, errors, meta } = Papa.parse(input, { skipEmptyLines: true });
        return { rows: data, errors, delimiter: meta.delimiter };
    },
    async eml() {
        const { simpleParser } = await import('mailparser');
        const mail = await simpleParser(input);
        return {
            subject: mail.subject,
            text: mail.text,
            html: mail.html || null,
            date: mail.date?.toISOString(),
            to: mail.to?.value,
            replyTo: mail.replyTo?.value,
            messageId: mail.messageId,
            headers: Object.fromEntries(mail.headerLines.map(({ key, line }) => [key, line])),
        };
    },
    async card() {
        const { default: VCard } = await import('vcf');
        return VCard.parse(input).map((card) => card.toJSON());
    },
    async openapi() {
        const { Validator } = await import('@seriousme/openapi-schema-validator');
        return new Validator().validate(JSON.parse(input));
    },
    /** {schemas: {name: schema}, documents: [[name, schema's id, document]]} */
    async schema() {
        const { default: Ajv } = await import('ajv/dist/2020.js');
        const { default: formats } = await import('ajv-formats');
        const { schemas, documents } = JSON.parse(input);
        const ajv = new Ajv({ allErrors: true, strict: false });
        formats(ajv);
        for (const schema of schemas) ajv.addSchema(schema);
        return documents
            .map(([name, id, document]) => [name, ajv.validate(id, document) ? null : ajv.errorsText()])
            .filter(([, errors]) => errors !== null);
    },
};

process.stdout.write(JSON.stringify(await read[process.argv[2]]()));
