export { fieldsIn, MOST_FIELDS, type Field } from "./fields";
export {
  FACTS,
  mappingFor,
  mappingSchema,
  readReport,
  type Fact,
  type ReportRead,
  type ToolMapping,
} from "./mapping";
