import { z } from "zod";

const attributeSchema = z.object({
  id: z.number(),
  name: z.string().optional(),
  when_failed: z.string().optional(),
  raw: z.object({ value: z.number(), string: z.string().optional() }).optional(),
});

/** What `smartctl -j -a` prints, as far as it is read. */
export const documentSchema = z.object({
  smartctl: z.object({
    exit_status: z.number().optional(),
    messages: z.array(z.object({ string: z.string(), severity: z.string().optional() })).optional(),
  }),
  device: z.object({ name: z.string(), protocol: z.string().optional() }).optional(),
  devices: z.array(z.object({ name: z.string() })).optional(),
  model_name: z.string().optional(),
  scsi_vendor: z.string().optional(),
  scsi_product: z.string().optional(),
  serial_number: z.string().optional(),
  firmware_version: z.string().optional(),
  scsi_revision: z.string().optional(),
  wwn: z.object({ naa: z.number(), oui: z.number(), id: z.number() }).optional(),
  logical_unit_id: z.string().optional(),
  user_capacity: z.object({ bytes: z.number() }).optional(),
  logical_block_size: z.number().optional(),
  physical_block_size: z.number().optional(),
  rotation_rate: z.number().optional(),
  smart_status: z
    .object({
      passed: z.boolean().optional(),
      scsi: z.object({ ie_string: z.string().optional() }).optional(),
    })
    .optional(),
  power_on_time: z.object({ hours: z.number() }).optional(),
  power_cycle_count: z.number().optional(),
  temperature: z.object({ current: z.number().optional() }).optional(),
  ata_smart_attributes: z.object({ table: z.array(attributeSchema) }).optional(),
  ata_smart_self_test_log: z
    .object({
      standard: z
        .object({
          table: z
            .array(
              z.object({
                type: z.object({ string: z.string() }),
                status: z.object({ string: z.string(), passed: z.boolean().optional() }),
                lifetime_hours: z.number().optional(),
              }),
            )
            .optional(),
        })
        .optional(),
    })
    .optional(),
  ata_smart_error_log: z
    .object({
      summary: z.object({ count: z.number() }).optional(),
      extended: z.object({ count: z.number() }).optional(),
    })
    .optional(),
  scsi_self_test_0: z
    .object({
      code: z.object({ string: z.string() }).optional(),
      result: z.object({ value: z.number().optional(), string: z.string().optional() }).optional(),
      power_on_time: z.object({ hours: z.number().optional() }).optional(),
    })
    .optional(),
  scsi_grown_defect_list: z.number().optional(),
  scsi_error_counter_log: z
    .object({
      read: z.object({ total_uncorrected_errors: z.number().optional() }).optional(),
      write: z.object({ total_uncorrected_errors: z.number().optional() }).optional(),
      verify: z.object({ total_uncorrected_errors: z.number().optional() }).optional(),
    })
    .optional(),
  scsi_percentage_used_endurance_indicator: z.number().optional(),
  nvme_smart_health_information_log: z
    .object({
      critical_warning: z.number().optional(),
      temperature: z.number().optional(),
      available_spare: z.number().optional(),
      available_spare_threshold: z.number().optional(),
      percentage_used: z.number().optional(),
      data_units_written: z.number().optional(),
      power_on_hours: z.number().optional(),
      media_errors: z.number().optional(),
    })
    .optional(),
  nvme_self_test_log: z
    .object({
      table: z
        .array(
          z.object({
            self_test_code: z.object({ string: z.string() }).optional(),
            self_test_result: z.object({ value: z.number().optional() }).optional(),
            power_on_hours: z.number().optional(),
          }),
        )
        .optional(),
    })
    .optional(),
});
export type Document = z.infer<typeof documentSchema>;
