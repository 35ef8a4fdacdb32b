package httpapi

import (
	"net/http"

	"github.com/gin-gonic/gin"

	"tincup/internal/core/book"
	"tincup/internal/core/settings"
	"tincup/internal/httpapi/contract"
)

// GetSettings answers with every setting.
func (s *server) GetSettings(c *gin.Context) {
	in := s.as(c).Settings()
	out := contract.Settings{Ever: in.Ever, MachineZone: s.app.Machine().String(), Settings: []contract.Setting{}}
	for i := range settings.Fields {
		f := &settings.Fields[i]
		row := contract.Setting{Name: f.Name, Value: f.Get(in.Settings), Default: f.Default, Wants: f.Wants}
		if _, fixed := in.Fixed[f.Name]; fixed {
			chosen := f.Get(in.Chosen)
			row.Chosen = &chosen
		}
		out.Settings = append(out.Settings, row)
	}
	c.JSON(http.StatusOK, out)
}

// ChangeSettings sets some; null sets one back to its default.
func (s *server) ChangeSettings(c *gin.Context, params contract.ChangeSettingsParams) {
	in, raw, err := body[map[string]*string](c)
	if err != nil {
		s.fail(c, err)
		return
	}
	cmd := book.Choose{Values: map[string]string{}}
	for name, value := range in {
		switch {
		case value == nil:
			cmd.Values[name] = ""
		case *value == "":
			s.fail(c, &book.RuleError{Field: name, Reason: "The value is empty. Send null to set it back to its default."})
			return
		default:
			cmd.Values[name] = *value
		}
	}
	reply, err := s.as(c).Run(c.Request.Context(), request(c, nil, params.WindowId, raw), cmd, turned)
	s.reply(c, reply, err)
}

// inForce are the settings in force by their names.
func inForce(of settings.Settings) map[string]string {
	values := make(map[string]string, len(settings.Fields))
	for i := range settings.Fields {
		values[settings.Fields[i].Name] = settings.Fields[i].Get(of)
	}
	return values
}
